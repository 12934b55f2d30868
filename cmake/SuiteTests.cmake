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
string(REPLACE ";" "," listed "${listed}")
string(REPLACE "\n" ";" lines "${listed}")
set(tests "")
foreach(line IN LISTS lines)
  # "Suite.", or "Suite.  # what its tests are given"; tests of it are indented.
  if(line MATCHES "^([A-Za-z0-9_/]+)\\.( |$)")
    string(APPEND tests "add_test(${CMAKE_MATCH_1} \"${PROGRAM}\" --gtest_brief=1 --gtest_filter=${CMAKE_MATCH_1}.*)\n")
  endif()
endforeach()
file(WRITE "${LIST}" "${tests}")
