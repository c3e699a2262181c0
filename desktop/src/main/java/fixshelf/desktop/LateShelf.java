package fixshelf.desktop;

import fixshelf.shelf.ShelfReader;
import fixshelf.work.RunLog;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;

/// A shelf that was open lately, as the first page tells of it without opening it.
///
/// @param where its folder, from the user's home where it is in there
/// @param cases what came of its cases when it was open last
/// @param lastRun when a job of it ran last, and which
record LateShelf(Path folder, String name, String where, long fixes, String cases, String lastRun, boolean hasRun) {
    private static final int DEEPEST = 6;

    static LateShelf of(Path folder, String cases) {
        Optional<RunLog.Last> last = RunLog.last(folder);
        Path home = Path.of(System.getProperty("user.home"));
        return new LateShelf(
                folder,
                ShelfReader.name(folder).orElse(String.valueOf(folder.getFileName())),
                folder.startsWith(home) ? "~/" + home.relativize(folder) : folder.toString(),
                fixes(folder),
                cases,
                last.map(l -> day(l) + ", " + l.job()).orElse("never here"),
                last.isPresent());
    }

    private static long fixes(Path folder) {
        try (Stream<Path> files = Files.walk(folder.resolve("fixes"), DEEPEST)) {
            return files.filter(f -> f.toString().endsWith(".fix.md")).count();
        } catch (IOException | java.io.UncheckedIOException e) {
            return 0;
        }
    }

    private static String day(RunLog.Last last) {
        LocalDate day = last.at().atZone(ZoneId.systemDefault()).toLocalDate();
        long ago = LocalDate.now(ZoneId.systemDefault()).toEpochDay() - day.toEpochDay();
        return ago == 0
                ? "today"
                : ago == 1
                        ? "yesterday"
                        : DateTimeFormatter.ofPattern("d MMMM", Locale.ENGLISH).format(day);
    }
}
