#!/usr/bin/env bash
# Makes the application image and, where the tools are there, a Debian package: packaging/package.sh HERE DEST
# Everything is built by ./needle package, which calls this.
set -euo pipefail
here=$1
dest=$2
work="$dest/work"
version=$(sed -n 's:.*<revision>\(.*\)</revision>.*:\1:p' "$here/pom.xml" | head -n 1)
rm -rf "$work" "$dest/eager-needle"
mkdir -p "$work/input" "$work/resources"
cp "$here/app/target/app.jar" "$here"/app/target/lib/*.jar "$work/input/"

jpackage --type app-image --name eager-needle --app-version "$version" --dest "$dest" \
  --input "$work/input" --main-jar app.jar --main-class eagerneedle.app.Launcher \
  --icon "$here/packaging/eager-needle.png" --description "From the plan to a defended number" --vendor "Eager Needle" \
  --add-modules java.base,java.desktop,java.logging,java.management,java.naming,java.net.http,java.prefs,java.scripting,java.sql,java.xml,jdk.jfr,jdk.unsupported,jdk.unsupported.desktop,jdk.zipfs,jdk.charsets \
  --jlink-options "--strip-java-debug-attributes --no-header-files --no-man-pages" \
  --java-options "-Xmx1g" --java-options "-XX:+UseG1GC" --java-options "-XX:MetaspaceSize=160m" --java-options "-Dfile.encoding=UTF-8" \
  --java-options "-Xshare:auto" --java-options "-Xlog:disable" --java-options "-XX:SharedArchiveFile=\$APPDIR/classes.jsa" --arguments open

# Which classes a start takes, where a window can be opened to find out.
app="$dest/eager-needle/lib/app"
if [ -n "${DISPLAY:-}" ]; then
  path=$(sed -n 's/^app.classpath=//p' "$app/eager-needle.cfg" | sed "s:\$APPDIR:$app:" | paste -sd: -)
  NEEDLE_HOME="$work/home" timeout 120 "$dest/eager-needle/lib/runtime/bin/java" -XX:DumpLoadedClassList="$app/classes.list" -XX:+UseG1GC \
    -Xshare:off -Dneedle.ready="$work/ready" -cp "$path" eagerneedle.app.Launcher open >/dev/null 2>&1 || true
  # For the image where it lies now; a package makes its own where it is installed.
  "$dest/eager-needle/lib/runtime/bin/java" -Xshare:dump -XX:+UseG1GC -XX:SharedClassListFile="$app/classes.list" \
    -XX:SharedArchiveFile="$work/classes.jsa" -cp "$path" >/dev/null 2>&1 || true
fi

if ! command -v dpkg-deb >/dev/null 2>&1 || ! command -v fakeroot >/dev/null 2>&1; then
  [ ! -f "$work/classes.jsa" ] || mv "$work/classes.jsa" "$app/classes.jsa"
  echo "The image is $dest/eager-needle. For a Debian package install fakeroot and dpkg." >&2
  exit 0
fi
# A sheet opens as well as a bench file.
sed "s:^icon=.*:icon=$here/packaging/eager-needle.png:" "$here/packaging/bench-file.properties" >"$work/bench-file.properties"
jpackage --type deb --name eager-needle --app-version "$version" --dest "$dest" --app-image "$dest/eager-needle" \
  --resource-dir "$here/packaging/deb" --file-associations "$work/bench-file.properties" \
  --linux-package-name eager-needle --linux-menu-group Education --linux-shortcut --linux-app-category science \
  --linux-deb-maintainer "laboratory@example.org" --description "From the plan to a defended number"
[ ! -f "$work/classes.jsa" ] || mv "$work/classes.jsa" "$app/classes.jsa"
rm -rf "$work"
