# Warnings (as errors), sanitizers and the compiler cache, for every target of the project.
find_program(CCACHE ccache)
if(CCACHE)
  set(CMAKE_CXX_COMPILER_LAUNCHER "${CCACHE}")
endif()

if(NOT CMAKE_BUILD_TYPE)
  set(CMAKE_BUILD_TYPE Release)
endif()

# What works through pictures, signals and statistics asks for more (src/core/CMakeLists.txt); for all else it
# only builds longer.
set(CMAKE_CXX_FLAGS_RELEASE "-O1 -DNDEBUG")
set(CMAKE_UNITY_BUILD_BATCH_SIZE 20)

# Left out: designated initialisers leave members to their defaults on purpose; GCC 12 sees overlaps in
# std::string that are not there (bug 105329), and below -O2 unset values in std::optional.
add_library(fin_compiler INTERFACE)
target_compile_options(fin_compiler INTERFACE
  -Wall -Wextra -Wpedantic -Wshadow -Wnon-virtual-dtor -Wold-style-cast -Wcast-align
  -Woverloaded-virtual -Wimplicit-fallthrough -Werror
  -Wno-missing-field-initializers -Wno-restrict -Wno-maybe-uninitialized
  -fno-trapping-math)  # nothing here traps floating-point exceptions, and loops that choose can be vectorised
target_include_directories(fin_compiler INTERFACE "${CMAKE_SOURCE_DIR}/src")

# Left out of the second: what the first sees when a wrong pointer is used, and the tests' own code (property
# FIN_TESTS_ONLY): both take most of the time to compile with it.
if(FIN_SANITIZE STREQUAL "address")
  target_compile_options(fin_compiler INTERFACE -fsanitize=address
    $<$<NOT:$<BOOL:$<TARGET_PROPERTY:FIN_TESTS_ONLY>>>:-fsanitize=undefined>
    -fno-sanitize=null,object-size,alignment,pointer-overflow,vptr -fno-sanitize-recover=all
    -fno-omit-frame-pointer)
  target_link_options(fin_compiler INTERFACE -fsanitize=address,undefined)
elseif(FIN_SANITIZE STREQUAL "thread")
  target_compile_options(fin_compiler INTERFACE -fsanitize=thread -fno-omit-frame-pointer -Wno-tsan)
  target_link_options(fin_compiler INTERFACE -fsanitize=thread)
endif()
