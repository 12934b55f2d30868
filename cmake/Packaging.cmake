# What is installed, and the Debian package (cpack -G DEB): the program, manual pages and shell completions made from
# its own help, the schema of the project file for editors, the example project.
set(CMAKE_SKIP_INSTALL_ALL_DEPENDENCY ON)  # the program is enough
include(GNUInstallDirs)
set(Python3_ROOT_DIR /usr CACHE PATH "Debian's, for which setup.sh installs modules")
find_package(Python3 COMPONENTS Interpreter)
install(TARGETS glowgrid RUNTIME DESTINATION ${CMAKE_INSTALL_BINDIR})
if(Python3_Interpreter_FOUND)
  set(pages "${PROJECT_BINARY_DIR}/pages")
  install(CODE "execute_process(COMMAND \"${Python3_EXECUTABLE}\" \"${PROJECT_SOURCE_DIR}/packaging/make_pages.py\"
    \"$<TARGET_FILE:glowgrid>\" \"${pages}\" COMMAND_ERROR_IS_FATAL ANY)")
  install(DIRECTORY "${pages}/man/" DESTINATION ${CMAKE_INSTALL_MANDIR}/man1)
  install(FILES "${pages}/bash/glowgrid" DESTINATION ${CMAKE_INSTALL_DATADIR}/bash-completion/completions)
  install(FILES "${pages}/zsh/_glowgrid" DESTINATION ${CMAKE_INSTALL_DATADIR}/zsh/vendor-completions)
else()
  message(STATUS "No Python: installed without manual pages and completions")
endif()
install(FILES packaging/glowgrid-project.schema.json DESTINATION ${CMAKE_INSTALL_DATADIR}/glowgrid)
install(FILES README.md DESTINATION ${CMAKE_INSTALL_DOCDIR})
install(DIRECTORY demo/ DESTINATION ${CMAKE_INSTALL_DOCDIR}/examples
  PATTERN "*.py" EXCLUDE PATTERN "*-results" EXCLUDE PATTERN "*-cache" EXCLUDE)

set(CPACK_GENERATOR DEB)
set(CPACK_PACKAGE_NAME glowgrid)
set(CPACK_PACKAGE_VENDOR "Glow Grid")
set(CPACK_PACKAGE_CONTACT "Glow Grid <packages@glowgrid.invalid>")
set(CPACK_PACKAGE_DESCRIPTION_SUMMARY "lighting of rooms, computed and held against standards")
set(CPACK_PACKAGING_INSTALL_PREFIX /usr)
set(CPACK_STRIP_FILES ON)
set(CPACK_DEBIAN_FILE_NAME DEB-DEFAULT)
set(CPACK_DEBIAN_PACKAGE_SECTION science)
set(CPACK_DEBIAN_PACKAGE_SHLIBDEPS ON)
set(CPACK_DEBIAN_PACKAGE_DEPENDS fonts-open-sans)
set(CPACK_DEBIAN_PACKAGE_RECOMMENDS weasyprint)  # reports as PDF
include(CPack)
