@echo off
rem Starts Fix Shelf: finds a JDK 25, builds what is not built, and passes its arguments on.
setlocal enabledelayedexpansion
set "here=%~dp0"
set "home="
for %%J in ("%FIXSHELF_JAVA_HOME%" "%JAVA_HOME%") do (
  if not defined home if exist "%%~J\release" (
    for /f "tokens=2 delims==." %%V in ('findstr /b JAVA_VERSION= "%%~J\release"') do (
      set "major=%%~V"
      set "major=!major:"=!"
      if !major! GEQ 25 set "home=%%~J"
    )
  )
)
if not defined home (
  echo Fix Shelf needs a JDK 25 or later. Install one, and set JAVA_HOME to it. 1>&2
  exit /b 2
)
set "app=%here%desktop\target\app"
if not exist "%app%\.built" (
  where mvn >nul 2>nul || (
    echo Fix Shelf is not built yet, and Maven is not on the path. Install Maven, then start again. 1>&2
    exit /b 2
  )
  echo Building Fix Shelf, once ... 1>&2
  pushd "%here%"
  set "JAVA_HOME=%home%"
  call mvn -q -B -ntp -DskipTests -pl desktop -am package || exit /b 3
  popd
  copy /y "%here%desktop\target\fixshelf-desktop-*.jar" "%app%" >nul
  mkdir "%app%\fx" 2>nul
  move /y "%app%\javafx-*.jar" "%app%\fx" >nul
  type nul > "%app%\.built"
)
"%home%\bin\java" --enable-native-access=javafx.graphics,ALL-UNNAMED --sun-misc-unsafe-memory-access=allow ^
  --module-path "%app%\fx" --add-modules javafx.controls -cp "%app%\*" fixshelf.desktop.Main %*
