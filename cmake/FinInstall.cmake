# What is installed where, and the Debian package that is made of it (cpack).
include(GNUInstallDirs)
set(share ${CMAKE_INSTALL_DATADIR}/agile-fin)

install(TARGETS agile-fin agile-fin-cli RUNTIME DESTINATION ${CMAKE_INSTALL_BINDIR})
install(DIRECTORY demo-day DESTINATION ${share})
install(DIRECTORY docs/guide docs/methods docs/schemas docs/screenshots DESTINATION ${share}/docs)
install(FILES docs/terms.md docs/formats.md DESTINATION ${share}/docs)
install(FILES packaging/agile-fin.desktop DESTINATION ${CMAKE_INSTALL_DATADIR}/applications)
install(FILES packaging/agile-fin.svg DESTINATION ${CMAKE_INSTALL_DATADIR}/icons/hicolor/scalable/apps)
install(FILES packaging/agile-fin-mime.xml DESTINATION ${CMAKE_INSTALL_DATADIR}/mime/packages RENAME agile-fin.xml)
foreach(program agile-fin agile-fin-cli)
  install(FILES packaging/${program}.bash DESTINATION ${CMAKE_INSTALL_DATADIR}/bash-completion/completions
    RENAME ${program})
endforeach()
configure_file(packaging/agile-fin.metainfo.xml.in agile-fin.metainfo.xml @ONLY)
install(FILES "${CMAKE_BINARY_DIR}/agile-fin.metainfo.xml" DESTINATION ${CMAKE_INSTALL_DATADIR}/metainfo)

# Man pages and the changelog are packed, with no time in them, so that the same tree gives the same package.
function(fin_install_packed source folder)
  cmake_path(GET source FILENAME name)
  configure_file(${source} "${CMAKE_BINARY_DIR}/packed/${name}" @ONLY)
  string(REGEX REPLACE "\\.in$" "" plain "${name}")
  execute_process(COMMAND gzip -9nc "${CMAKE_BINARY_DIR}/packed/${name}"
    OUTPUT_FILE "${CMAKE_BINARY_DIR}/packed/${plain}.gz" COMMAND_ERROR_IS_FATAL ANY)
  install(FILES "${CMAKE_BINARY_DIR}/packed/${plain}.gz" DESTINATION ${folder})
endfunction()
fin_install_packed("${CMAKE_SOURCE_DIR}/packaging/man/agile-fin.1.in" ${CMAKE_INSTALL_MANDIR}/man1)
fin_install_packed("${CMAKE_SOURCE_DIR}/packaging/man/agile-fin-cli.1.in" ${CMAKE_INSTALL_MANDIR}/man1)

set(papers ${CMAKE_INSTALL_DATADIR}/doc/agile-fin)
install(FILES packaging/copyright DESTINATION ${papers})
install(FILES src/app/ui/fonts/Inter-licence.txt DESTINATION ${papers})
fin_install_packed("${CMAKE_SOURCE_DIR}/packaging/changelog.in" ${papers})

set(CPACK_GENERATOR DEB)
set(CPACK_PACKAGE_NAME agile-fin)
set(CPACK_PACKAGE_CONTACT "The Agile Fin team <team@agile-fin.example>")
set(CPACK_DEBIAN_PACKAGE_DESCRIPTION "measures fishing lures from footage
Films of soft plastics, jerkbaits, spoons and bladed baits in pools or tanks
are followed and read: wobble, roll, fall, dart, spring-back, skirt and sound,
each number with its uncertainty. Plans test days, compares, scores, publishes,
keeps the log, and chooses what to tie on. A demo with its clips is included.")
set(CPACK_DEBIAN_PACKAGE_SECTION science)
set(CPACK_DEBIAN_PACKAGE_SHLIBDEPS ON)
set(CPACK_DEBIAN_PACKAGE_DEPENDS "libqt6svg6, qt6-qpa-plugins, fonts-inter, fonts-dejavu-core")
set(CPACK_DEBIAN_FILE_NAME DEB-DEFAULT)
set(CPACK_DEBIAN_PACKAGE_HOMEPAGE "https://agile-fin.example")
set(CPACK_STRIP_FILES ON)
set(CPACK_PACKAGING_INSTALL_PREFIX /usr)
set(CPACK_INSTALL_DEFAULT_DIRECTORY_PERMISSIONS
  OWNER_READ OWNER_WRITE OWNER_EXECUTE GROUP_READ GROUP_EXECUTE WORLD_READ WORLD_EXECUTE)
set(CMAKE_INSTALL_DEFAULT_DIRECTORY_PERMISSIONS ${CPACK_INSTALL_DEFAULT_DIRECTORY_PERMISSIONS})
include(CPack)
