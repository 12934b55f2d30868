# embed_files(TARGET_VAR NAMESPACE BASE_FOLDER FILE...)
# Makes a source file that holds the given files as text, so that the program needs nothing beside itself.
# Declared in src/files/output/embedded_files.hpp.
function(embed_files out_var list_name base_folder)
  set(source "${CMAKE_CURRENT_BINARY_DIR}/${list_name}.cpp")
  set(paths "")
  foreach(file IN LISTS ARGN)
    list(APPEND paths "${base_folder}/${file}")
  endforeach()
  list(JOIN ARGN "," joined)
  add_custom_command(
    OUTPUT "${source}"
    COMMAND ${CMAKE_COMMAND} "-DOUTPUT=${source}" "-DLIST_NAME=${list_name}" "-DBASE=${base_folder}"
            "-DFILES=${joined}" -P "${CMAKE_SOURCE_DIR}/cmake/embed_script.cmake"
    DEPENDS ${paths} "${CMAKE_SOURCE_DIR}/cmake/embed_script.cmake"
    VERBATIM)
  set(${out_var} "${source}" PARENT_SCOPE)
endfunction()
