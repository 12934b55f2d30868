# A test for CTest for each suite of a GoogleTest program: starting a process a thousand times takes longer than most of
# what it does. As a script, after the program is built: lists its suites.
#   suite_tests(TARGET)
#   cmake -DPROGRAM=FILE -DLIST=FILE.cmake -P SuiteTests.cmake
if(NOT CMAKE_SCRIPT_MODE_FILE)
  set(SUITE_TESTS "${CMAKE_CURRENT_LIST_FILE}")
  function(suite_tests target)
    set(list "${CMAKE_CURRENT_BINARY_DIR}/${target}_suites.cmake")
    add_custom_command(TARGET ${target} POST_BUILD
      COMMAND "${CMAKE_COMMAND}" "-DPROGRAM=$<TARGET_FILE:${target}>" "-DLIST=${list}" -P "${SUITE_TESTS}"
      BYPRODUCTS "${list}"
      VERBATIM)
    set(include "${CMAKE_CURRENT_BINARY_DIR}/${target}_include.cmake")
    file(WRITE "${include}"
      "if(EXISTS \"${list}\")\n  include(\"${list}\")\nelse()\n  add_test(${target}_NOT_BUILT ${target}_NOT_BUILT)\nendif()\n")
    set_property(DIRECTORY APPEND PROPERTY TEST_INCLUDE_FILES "${include}")
  endfunction()
  return()
endif()

execute_process(COMMAND "${PROGRAM}" --gtest_list_tests OUTPUT_VARIABLE listed COMMAND_ERROR_IS_FATAL ANY)
# "Suite.", or "Suite.  # what its tests are given"; tests of it are indented. What they are given may hold any signs,
# which a list of all lines would take for its own.
string(REGEX MATCHALL "\n[A-Za-z0-9_/]+\\.[ \n]" suites "${listed}")
set(tests "")
foreach(suite IN LISTS suites)
  string(REGEX REPLACE "[^A-Za-z0-9_/]" "" suite "${suite}")
  string(APPEND tests "add_test(${suite} \"${PROGRAM}\" --gtest_brief=1 --gtest_filter=${suite}.*)\n")
endforeach()
file(WRITE "${LIST}" "${tests}")
