package fixshelf.source;

import fixshelf.engine.DuckSession;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.source.CarefulRows.BadRow;
import fixshelf.type.Column;
import fixshelf.type.Type;
import java.io.IOException;
import java.nio.file.DirectoryIteratorException;
import java.nio.file.DirectoryStream;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.PathMatcher;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/// Several files of one folder as one table: those whose names fit a pattern, in the order of their names. `*` stands
/// for any letters, `?` for one. A column `file` says which file a row is of; other columns are put together by their
/// names, whatever their order, capitals and blanks at their ends, and one that a file does not have is missing there.
public final class FilePattern {
    private static final int MOST_FILES = 10_000;
    private static final String FILE = "file";

    private final SourceFile whole;

    FilePattern(SourceFile whole) {
        this.whole = whole;
    }

    /// Whether a path means several files: its name holds `*` or `?`, and there is no file called so.
    public static boolean is(Path file) {
        Path name = file.getFileName();
        return name != null && name.toString().chars().anyMatch(c -> c == '*' || c == '?') && !Files.exists(file);
    }

    /// Whether there is a file, or one that a pattern fits.
    public static boolean isThere(Path file) {
        return Files.isRegularFile(file) || is(file) && !files(file).isEmpty();
    }

    /// What says of a name whether it fits; only `*` and `?` have a meaning.
    static PathMatcher matcher(Path pattern) {
        String name = pattern.getFileName().toString().replaceAll("[\\[\\]{}\\\\]", "\\\\$0");
        return FileSystems.getDefault().getPathMatcher("glob:" + name);
    }

    /// The files that fit, in the order of their names.
    static List<Path> files(Path pattern) {
        Path folder = pattern.toAbsolutePath().getParent();
        PathMatcher matcher = matcher(pattern);
        List<Path> files = new ArrayList<>();
        if (folder == null || !Files.isDirectory(folder)) {
            return files;
        }
        try (DirectoryStream<Path> all = Files.newDirectoryStream(folder)) {
            for (Path file : all) {
                if (matcher.matches(file.getFileName()) && Files.isRegularFile(file)) {
                    files.add(pattern.isAbsolute() ? file : pattern.resolveSibling(file.getFileName()));
                }
            }
        } catch (IOException | DirectoryIteratorException e) {
            return List.of();
        }
        files.sort(Comparator.comparing(f -> f.getFileName().toString()));
        return files;
    }

    /// The columns of all files; a file that cannot be read is a problem, as is a pattern that none fits.
    static Outcome<SourceFile> open(Path pattern, ReadOptions options) {
        List<Path> files = files(pattern);
        if (files.isEmpty() || files.size() > MOST_FILES) {
            String what =
                    files.isEmpty() ? "No file is called like " : "More than " + MOST_FILES + " files are called like ";
            return Outcome.failed(Problem.about(
                    Code.FILE_MISSING,
                    pattern.toString(),
                    what + pattern.getFileName() + " in "
                            + pattern.toAbsolutePath().getParent() + ".",
                    "Look at the folder, and at the pattern: * stands for any letters, ? for one."));
        }
        Map<String, String> names = new LinkedHashMap<>();
        Map<String, Type> types = new HashMap<>();
        boolean declares = true;
        for (Path file : files) {
            Outcome<SourceFile> member = SourceFile.open(file, options);
            if (!member.isPresent()) {
                return Outcome.failed(member.problems());
            }
            Map<String, String> own = new LinkedHashMap<>();
            for (Column column : member.get().columns()) {
                String other = own.put(key(column.name()), column.name());
                if (other != null) {
                    return Outcome.failed(Problem.about(
                            Code.FILE_BROKEN,
                            file.toString(),
                            file.getFileName() + " has the columns '" + other + "' and '" + column.name()
                                    + "', which are one name where several files are put together.",
                            "Rename one of them in the file, or read it by itself."));
                }
            }
            own.forEach(names::putIfAbsent);
            declares &= !member.get().declared().isEmpty();
            for (int i = 0; i < member.get().columns().size(); i++) {
                Type said = member.get().declared().isEmpty()
                        ? Type.TEXT
                        : member.get().declared().get(i);
                // Types that differ are none.
                types.merge(key(member.get().columns().get(i).name()), said, (a, b) -> a.equals(b) ? a : Type.TEXT);
            }
        }
        List<Column> columns = new ArrayList<>();
        Set<String> taken = new HashSet<>();
        names.values().forEach(n -> taken.add(n.toLowerCase(Locale.ROOT)));
        String file = FILE;
        for (int n = 2; taken.contains(file); n++) {
            file = FILE + "_" + n;
        }
        columns.add(new Column(file, Type.TEXT));
        List<Type> declared = new ArrayList<>(List.of(Type.TEXT));
        names.forEach((key, n) -> {
            columns.add(new Column(n, Type.TEXT));
            declared.add(types.getOrDefault(key, Type.TEXT));
        });
        return Outcome.of(new SourceFile(pattern, options, columns).declaring(declares ? declared : List.of()));
    }

    private static String key(String name) {
        return name.strip().toLowerCase(Locale.ROOT);
    }

    /// Reads all files, one after the other, into a new table.
    ///
    /// @param most how many rows are wanted at most
    Outcome<CarefulRows> read(DuckSession session, String table, long most) {
        CarefulRows.create(whole, session, table);
        List<BadRow> bad = new ArrayList<>();
        List<String> notes = new ArrayList<>();
        long badCount = 0;
        long rows = 0;
        for (Path file : files(whole.file())) {
            if (rows >= most) {
                break;
            }
            Outcome<SourceFile> member = SourceFile.open(file, whole.options());
            Outcome<CarefulRows> read = member.then(m -> CarefulRows.read(m, session, MEMBER, most));
            if (!read.isPresent()) {
                return Outcome.failed(read.problems());
            }
            String name = file.getFileName().toString();
            Optional<Column> added = member.get().columns().stream()
                    .filter(c -> whole.columns().stream().skip(1).noneMatch(w -> key(w.name())
                            .equals(key(c.name()))))
                    .findFirst();
            if (added.isPresent()) {
                return Outcome.failed(Problem.about(
                        Code.SOURCE_CHANGED,
                        file.toString(),
                        name + " has a column " + added.get().name() + " that no file had a moment ago.",
                        "Read the files again."));
            }
            rows += session.write("INSERT INTO " + table + " SELECT " + cells(member.get()) + " FROM " + MEMBER);
            read.get().bad().stream()
                    .limit(CarefulRows.MOST_LISTED - bad.size())
                    .map(b -> new BadRow(b.line(), b.why() + " in " + name, b.start(), b.problem()))
                    .forEach(bad::add);
            badCount += read.get().badCount();
            difference(member.get()).ifPresent(notes::add);
            read.get().notes().forEach(n -> notes.add(name + ": " + n));
        }
        session.run("DROP TABLE IF EXISTS " + MEMBER);
        return Outcome.of(new CarefulRows(bad, badCount, List.of(), notes));
    }

    private static final String MEMBER = "one_of_several";

    /// The columns of the whole, out of those of one file.
    private String cells(SourceFile member) {
        Map<String, String> there = new LinkedHashMap<>();
        member.columns().forEach(c -> there.putIfAbsent(key(c.name()), c.name()));
        String name = DuckSession.text(member.file().getFileName().toString());
        return name
                + whole.columns().stream()
                        .skip(1)
                        .map(c ->
                                there.containsKey(key(c.name())) ? DuckSession.name(there.get(key(c.name()))) : "NULL")
                        .map(c -> ", " + c)
                        .collect(Collectors.joining());
    }

    /// How the columns of a file differ from all columns.
    private Optional<String> difference(SourceFile member) {
        Map<String, String> there = new LinkedHashMap<>();
        member.columns().forEach(c -> there.putIfAbsent(key(c.name()), c.name()));
        List<String> absent = new ArrayList<>();
        List<String> otherwise = new ArrayList<>();
        whole.columns().stream().skip(1).map(Column::name).forEach(n -> {
            String written = there.get(key(n));
            if (written == null) {
                absent.add(n);
            } else if (!written.equals(n)) {
                otherwise.add(written + " for " + n);
            }
        });
        List<String> parts = new ArrayList<>();
        if (!absent.isEmpty()) {
            parts.add("has no " + String.join(", ", absent));
        }
        if (!otherwise.isEmpty()) {
            parts.add("writes " + String.join(", ", otherwise));
        }
        return parts.isEmpty()
                ? Optional.empty()
                : Optional.of(member.file().getFileName() + " " + String.join("; ", parts) + ".");
    }
}
