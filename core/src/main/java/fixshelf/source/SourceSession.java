package fixshelf.source;

import fixshelf.engine.DuckSession;
import fixshelf.engine.TemporaryFolder;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.BasicFileAttributes;
import java.nio.file.attribute.FileTime;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Collectors;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;

/// A session that can read one source, strictly if it is well-formed, through a careful copy if not.
public final class SourceSession implements AutoCloseable {
    private final SourceFile source;
    private final DuckSession session;
    private final TemporaryFolder folder;
    private final Set<Path> others;
    private Optional<CarefulRows> careful = Optional.empty();

    private SourceSession(SourceFile source, DuckSession session, TemporaryFolder folder, Set<Path> others) {
        this.source = source;
        this.session = session;
        this.folder = folder;
        this.others = others;
    }

    /// Opens a session that may read the source and also touch these files.
    public static SourceSession open(SourceFile source, List<Path> files) {
        return open(source, List.of(), files);
    }

    /// As above, and may read other sources.
    public static SourceSession open(SourceFile source, Collection<SourceFile> others, List<Path> files) {
        try {
            TemporaryFolder folder = TemporaryFolder.make("rows");
            List<Path> allowed = new ArrayList<>(files);
            allowed.addAll(source.files());
            Set<Path> read = new HashSet<>();
            others.forEach(o -> read.addAll(o.files()));
            allowed.addAll(read);
            return new SourceSession(source, DuckSession.open(allowed, Optional.of(folder.path())), folder, read);
        } catch (IOException e) {
            throw new UncheckedIOException("no room for temporary files", e);
        }
    }

    public DuckSession session() {
        return session;
    }

    /// The rows that were left out, if the source had to be read carefully.
    public Optional<CarefulRows> careful() {
        return careful;
    }

    /// Reads another file into a table with places in `p` and columns `s0`, `s1` and so on; record by record where it
    /// is not well-formed. A file that does not fit is a problem, unless its bad rows are to be left out.
    public void bring(SourceFile other, String table) {
        if (isWorthIt(other) && other.isPlain(Long.MAX_VALUE)) {
            try {
                bringPlain(other, table);
                return;
            } catch (ProblemException e) {
                if (e.problem().code() != Code.ENGINE_FAILED) {
                    throw e;
                }
            }
        }
        Outcome<CarefulRows> rows = CarefulRows.read(other, session, BROUGHT);
        if (!rows.isPresent()) {
            throw new ProblemException(rows.problems().getFirst());
        }
        if (rows.get().badCount() > 0 && !other.options().leaveOutBadRows()) {
            throw new ProblemException(rows.get().problem(other));
        }
        StringBuilder columns = new StringBuilder("place AS p");
        StringBuilder names = new StringBuilder();
        for (int i = 0; i < other.columns().size(); i++) {
            columns.append(", s").append(i);
            names.append(i == 0 ? "" : ", ").append('s').append(i);
        }
        session.run("CREATE OR REPLACE TABLE " + table + " AS SELECT " + columns
                + " FROM (SELECT row_number() OVER () - 1 AS place, * FROM " + BROUGHT + " AS b(" + names + "))");
        session.run("DROP TABLE " + BROUGHT);
    }

    /// Another session takes longer to open than a small file to be read record by record.
    private boolean isWorthIt(SourceFile other) {
        try {
            return others.containsAll(other.files()) || other.bytes() > SMALL;
        } catch (IOException e) {
            return false;
        }
    }

    /// What a session may read is said when it is opened: other files are read by one of their own, through a file that
    /// both may use.
    private void bringPlain(SourceFile other, String table) {
        String rows = "SELECT row_number() OVER () - 1 AS p, " + numbered(other) + " FROM " + other.relation();
        String made = "CREATE OR REPLACE TABLE " + table + " AS ";
        if (others.containsAll(other.files())) {
            session.run(made + rows);
            return;
        }
        Path between = folder.path().resolve(BROUGHT + ".parquet");
        String file = DuckSession.text(between.toString());
        try (DuckSession reading = DuckSession.open(other.files(), Optional.of(folder.path()))) {
            reading.run("COPY (" + rows + ") TO " + file + " (FORMAT parquet)");
            session.run(made + "SELECT * FROM read_parquet(" + file + ")");
        } finally {
            between.toFile().delete();
        }
    }

    private static final long SMALL = 200_000;
    private static final String BROUGHT = "brought";
    private static final String CAREFULLY = "read_carefully";

    /// What tells that a file is still the one that it was.
    private record Stamp(long bytes, FileTime changed, Optional<Object> key) {
        /// Nothing where one of the files is not there.
        static Optional<Map<Path, Stamp>> of(SourceFile source) {
            Map<Path, Stamp> stamps = new LinkedHashMap<>();
            try {
                for (Path file : source.files()) {
                    BasicFileAttributes now = Files.readAttributes(file, BasicFileAttributes.class);
                    stamps.put(file, new Stamp(now.size(), now.lastModifiedTime(), Optional.ofNullable(now.fileKey())));
                }
                return Optional.of(stamps);
            } catch (IOException e) {
                return Optional.empty();
            }
        }
    }

    /// Does `work` with a relation that reads the source, of which at least the first `records` records will be
    /// used. It is done a second time, record by record, when the engine refuses the source. A file that was cut,
    /// replaced or removed meanwhile is a problem, whatever came of the work.
    public void read(long records, Consumer<String> work) {
        Optional<Map<Path, Stamp>> before = Stamp.of(source);
        try {
            work(records, work);
        } catch (ProblemException e) {
            wantUnchanged(before);
            throw e;
        }
        wantUnchanged(before);
    }

    /// Does `work` with a relation whose columns have the types that the source declares. Gives false where it cannot
    /// be read so, or holds a value that is none of ours: what was done then is to be done again, over texts.
    public boolean readTyped(Consumer<String> work) {
        Optional<String> relation = source.typedRelation();
        if (relation.isEmpty()) {
            return false;
        }
        Optional<Map<Path, Stamp>> before = Stamp.of(source);
        try {
            work.accept(relation.get());
        } catch (ProblemException e) {
            wantUnchanged(before);
            if (e.problem().code() != Code.ENGINE_FAILED) {
                throw e;
            }
            return false;
        }
        wantUnchanged(before);
        return true;
    }

    private void wantUnchanged(Optional<Map<Path, Stamp>> before) {
        Optional<Map<Path, Stamp>> after = Stamp.of(source);
        if (before.isEmpty() || !before.equals(after)) {
            String what = after.isEmpty() ? "was removed" : "was changed";
            throw new ProblemException(Problem.about(
                    Code.SOURCE_CHANGED,
                    source.file().toString(),
                    source.file().getFileName() + " " + what + " while it was read.",
                    "Wait until the program that writes it is done, then try again."));
        }
    }

    private void work(long records, Consumer<String> work) {
        if (source.isPlain(records)) {
            try {
                work.accept(source.relation());
                return;
            } catch (ProblemException e) {
                if (e.problem().code() != Code.ENGINE_FAILED) {
                    throw e;
                }
            }
        }
        Outcome<CarefulRows> rows = CarefulRows.read(source, session, CAREFULLY, records);
        if (!rows.isPresent()) {
            throw new ProblemException(rows.problems().getFirst());
        }
        careful = rows.value();
        work.accept(CAREFULLY);
        session.run("DROP TABLE " + CAREFULLY);
    }

    @Override
    public void close() {
        session.close();
        folder.close();
    }

    /// The columns of a source, called by their places: `"Visit No" AS s0, …`.
    public static String numbered(SourceFile source) {
        return IntStream.range(0, source.columns().size())
                .mapToObj(i -> DuckSession.name(source.columns().get(i).name()) + " AS s" + i)
                .collect(Collectors.joining(", "));
    }

    /// How many rows a source has, however many these are; may take a while.
    public static Outcome<Long> count(SourceFile source) {
        SourceSession counting = open(source, List.of());
        try (counting) {
            long[] count = new long[1];
            counting.read(
                    Long.MAX_VALUE,
                    relation -> count[0] = counting.session().number("SELECT count(*) FROM " + relation));
            return Outcome.of(count[0]);
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        }
    }
}
