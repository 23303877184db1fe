# Debian's libraries, each as one imported target. Headers count as system headers, so that their
# warnings are not ours.
find_package(PkgConfig REQUIRED)
find_package(Threads REQUIRED)
find_package(Eigen3 REQUIRED NO_MODULE)
find_package(fmt REQUIRED)
find_package(CLI11 REQUIRED)
find_package(nlohmann_json REQUIRED)
find_package(tl-expected REQUIRED)
find_package(Boost REQUIRED)

pkg_check_modules(FFMPEG REQUIRED IMPORTED_TARGET libavformat libavcodec libswscale libswresample libavutil)
pkg_check_modules(PANGO REQUIRED IMPORTED_TARGET pangocairo)

# Only the small OpenCV packages are wanted, and those ship no CMake configuration.
find_path(OPENCV_INCLUDE opencv2/core.hpp PATH_SUFFIXES opencv4 REQUIRED)
function(fin_opencv module)
  find_library(OPENCV_${module} opencv_${module} REQUIRED)
  add_library(opencv::${module} INTERFACE IMPORTED)
  target_link_libraries(opencv::${module} INTERFACE "${OPENCV_${module}}")
  target_include_directories(opencv::${module} SYSTEM INTERFACE "${OPENCV_INCLUDE}")
endfunction()
fin_opencv(core)
fin_opencv(imgproc)
fin_opencv(video)
fin_opencv(calib3d)

find_package(SQLiteCpp REQUIRED)
