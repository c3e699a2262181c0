package fixshelf.desktop.data;

import fixshelf.desktop.parts.PagedRows;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Background;
import fixshelf.desktop.workbench.Background.Request;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.profile.ColumnLook;
import fixshelf.profile.ColumnsCompared;
import fixshelf.profile.CountSpec;
import fixshelf.profile.CountTable;
import fixshelf.profile.Counts;
import fixshelf.profile.CountsChecked;
import fixshelf.profile.DataLook;
import fixshelf.profile.Drawing;
import fixshelf.profile.EarlierLook;
import fixshelf.profile.Finding;
import fixshelf.profile.KnownList;
import fixshelf.profile.OverTime;
import fixshelf.profile.Remedies;
import fixshelf.profile.Remedy;
import fixshelf.profile.RowFilter;
import fixshelf.profile.RowsCompared;
import fixshelf.profile.SeenRow;
import fixshelf.profile.TableLook;
import fixshelf.shelf.KeptCounts;
import fixshelf.shelf.Shelf;
import fixshelf.source.CarefulRows;
import fixshelf.source.SourceFile;
import fixshelf.source.SourcePlace;
import fixshelf.work.Datasets;
import fixshelf.work.PreviewRow;
import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Consumer;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/// Datasets that are looked at: one is staged at a time, and only touched on its own lane.
final class DataModel {
    private static final String LANE = "data";
    private static final int MOST_LIST_COLUMNS = 6;

    private final Background background;
    private @Nullable DataLook data;
    private String staged = "";

    /// What is known of datasets, by a name that changes with their files.
    private final Map<String, Seen> seen = new ConcurrentHashMap<>();

    private Map<String, Listed> listed = Map.of();

    DataModel(Background background) {
        this.background = background;
        background.atEnd(() -> {
            if (data != null) {
                data.close();
            }
        });
    }

    /// What was seen of a dataset.
    ///
    /// @param table its columns; those of the first rows while the others are looked at
    /// @param remedies what would help, once that was tried
    /// @param since what is other than at the last look; none where there was none
    /// @param problem what is wrong with rows that were left out
    /// @param leftOut how many these are
    /// @param notes what is worth saying of how it was read
    /// @param other what is other than the counts that its page keeps
    record Seen(
            SourceFile file,
            TableLook table,
            Map<Finding, List<Remedy>> remedies,
            boolean tried,
            Optional<Since> since,
            Optional<Problem> problem,
            long leftOut,
            List<String> notes,
            List<String> other,
            long millis) {
        int toLookAt() {
            return table.all().size() + other.size();
        }
    }

    /// What is other than at an earlier look.
    record Since(Instant at, List<String> differences) {}

    /// What is known of a dataset without looking at its rows.
    ///
    /// @param key a name that changes with its files
    /// @param size how large it is, in words
    private record Listed(String key, String size) {}

    /// Finds out, away from the interface, how large the datasets of a shelf are, and whether they are still those that
    /// were looked at.
    void list(Shelf shelf, Runnable done) {
        background.ask(
                Request.now("datasets", "listing datasets"),
                () -> {
                    Map<String, Listed> all = new HashMap<>();
                    shelf.datasets()
                            .forEach(d -> all.put(d.name(), listed(d.name(), Datasets.openHere(shelf, d.name()))));
                    return all;
                },
                all -> {
                    listed = all;
                    done.run();
                });
    }

    private static Listed listed(String dataset, Outcome<SourceFile> file) {
        if (file.isPresent()) {
            return new Listed(key(dataset, file.get()), size(file.get()));
        }
        Code code = file.problems().getFirst().code();
        return new Listed(
                "",
                code == Code.NOT_READ_YET
                        ? "not read yet"
                        : code == Code.NOT_ALLOWED ? "not allowed yet" : "cannot be read");
    }

    private static String size(SourceFile file) {
        try {
            String files = file.isPattern() ? Ui.count(file.files().size(), "file", "files") + " · " : "";
            long size = file.bytes();
            return files
                    + (size < 10_000
                            ? Ui.count(size, "byte", "bytes")
                            : size < 10_000_000
                                    ? String.format("%,d kB", size / 1_000)
                                    : String.format("%,d MB", size / 1_000_000));
        } catch (IOException e) {
            return "cannot be read";
        }
    }

    /// What was seen of a dataset, if its file is still the one that was looked at.
    Optional<Seen> known(String dataset) {
        return Optional.ofNullable(listed.get(dataset)).map(l -> seen.get(l.key()));
    }

    /// How large a dataset is, in words; empty while that is not known.
    String sizeOf(String dataset) {
        return Optional.ofNullable(listed.get(dataset)).map(Listed::size).orElse("");
    }

    private static String key(String dataset, SourceFile file) {
        return dataset + file.stamp();
    }

    /// Looks at a dataset: at its first rows, then at all, then at what would help. Each tells `done` what is known so
    /// far.
    void look(Shelf shelf, String dataset, Consumer<Outcome<Seen>> done) {
        background.ask(Request.now(LANE, "looking at " + dataset), () -> first(shelf, dataset), found -> {
            done.accept(found);
            if (found.isPresent() && !found.get().table().whole()) {
                whole(shelf, dataset, found.get(), done);
            } else {
                found.value().filter(s -> !s.tried()).ifPresent(s -> remedies(shelf, dataset, s, done));
            }
        });
    }

    private Outcome<Seen> first(Shelf shelf, String dataset) {
        long start = System.nanoTime();
        Outcome<SourceFile> file = Datasets.open(shelf, dataset);
        if (!file.isPresent()) {
            return Outcome.failed(file.problems());
        }
        String key = key(dataset, file.get());
        Seen known = seen.get(key);
        if (known != null && staged.equals(key)) {
            return Outcome.of(known);
        }
        return open(key, file.get(), known == null ? DataLook.SAMPLE_ROWS : Long.MAX_VALUE)
                .then(d -> known != null ? Outcome.of(known) : seen(shelf, dataset, key, d, start));
    }

    private Outcome<DataLook> open(String key, SourceFile file, long most) {
        if (data != null) {
            data.close();
            data = null;
            staged = "";
        }
        Outcome<DataLook> opened = DataLook.open(file, most);
        opened.value().ifPresent(d -> {
            data = d;
            staged = key;
        });
        return opened;
    }

    private Outcome<Seen> seen(Shelf shelf, String dataset, String key, DataLook look, long start) {
        return look.columns(KnownList.of(shelf, look.file())).map(table -> {
            Optional<Since> since = EarlierLook.last(shelf.root(), dataset)
                    .filter(_ -> table.whole())
                    .map(e -> new Since(e.at(), e.differences(table)));
            EarlierLook.keep(shelf.root(), dataset, table, Instant.now());
            Optional<Problem> problem =
                    look.careful().filter(c -> c.badCount() > 0).map(c -> c.problem(look.file()));
            Seen now = new Seen(
                    look.file(),
                    table,
                    Map.of(),
                    false,
                    since,
                    problem,
                    look.careful().map(CarefulRows::badCount).orElse(0L),
                    look.notes(),
                    shelf.dataset(dataset)
                            .filter(_ -> table.whole())
                            .flatMap(p -> CountsChecked.differences(look, p).value())
                            .orElse(List.of()),
                    (System.nanoTime() - start) / 1_000_000);
            if (table.whole()) {
                seen.put(key, now);
            }
            return now;
        });
    }

    /// Keeps counts of these columns in the page of a dataset, once all of its rows are there.
    void keepCounts(Shelf shelf, String dataset, SourceFile file, List<String> columns, Consumer<Outcome<Shelf>> done) {
        background.ask(
                Request.now(LANE, "keeping counts of " + dataset),
                () -> {
                    DataLook now = data;
                    if (now == null || !now.file().equals(file) || !now.isWhole()) {
                        return Outcome.failed(Problem.about(
                                Code.ARGUMENTS,
                                dataset,
                                "Not all rows of " + dataset + " are there yet.",
                                "Wait until they are, then keep the counts."));
                    }
                    Outcome<Shelf> kept = CountsChecked.of(now, columns)
                            .then(counts -> KeptCounts.write(
                                    shelf, shelf.dataset(dataset).orElseThrow(), counts));
                    if (kept.isPresent()) {
                        seen.remove(key(dataset, file));
                        staged = "";
                    }
                    return kept;
                },
                done);
    }

    private void whole(Shelf shelf, String dataset, Seen first, Consumer<Outcome<Seen>> done) {
        background.ask(
                Request.now(LANE, "looking at all rows of " + dataset),
                () -> {
                    long start = System.nanoTime();
                    String key = key(dataset, first.file());
                    return open(key, first.file(), Long.MAX_VALUE).then(d -> seen(shelf, dataset, key, d, start));
                },
                found -> {
                    done.accept(found);
                    found.value().ifPresent(s -> remedies(shelf, dataset, s, done));
                });
    }

    private void remedies(Shelf shelf, String dataset, Seen found, Consumer<Outcome<Seen>> done) {
        background.ask(
                Request.now(LANE, "trying what would help " + dataset),
                () -> {
                    DataLook now = data;
                    if (now == null || !now.file().equals(found.file())) {
                        return Outcome.of(found);
                    }
                    Outcome<Map<Finding, List<Remedy>>> tried = new Remedies(now, shelf).of(found.table());
                    Seen more = new Seen(
                            found.file(),
                            found.table(),
                            tried.value().orElse(Map.of()),
                            true,
                            found.since(),
                            found.problem(),
                            found.leftOut(),
                            found.notes(),
                            found.other(),
                            found.millis());
                    // What was stopped is tried again the next time.
                    if (tried.isPresent()) {
                        seen.put(key(dataset, found.file()), more);
                    }
                    return Outcome.of(more);
                },
                done);
    }

    /// Does something with a dataset that is staged; nothing where another is by then.
    <T> void onData(SourceFile of, String name, Function<DataLook, Outcome<T>> work, Consumer<Outcome<T>> done) {
        background.ask(
                Request.now(LANE, name),
                () -> {
                    DataLook now = data;
                    return now == null || !now.file().equals(of)
                            ? Optional.<Outcome<T>>empty()
                            : Optional.of(work.apply(now));
                },
                found -> found.ifPresent(done));
    }

    /// Rows that pass a filter, as a list that asks for the pages that are looked at.
    void rows(SourceFile of, RowFilter filter, Consumer<Outcome<PagedRows>> done) {
        onData(
                of,
                "counting rows",
                d -> d.count(filter),
                count -> done.accept(count.map(n -> new PagedRows(
                        n,
                        (page, rows) -> onData(
                                of,
                                "rows " + page,
                                d -> d.rows(filter, (long) page * PagedRows.PAGE, PagedRows.PAGE),
                                found -> found.value().ifPresent(all -> rows.put(page, shown(all))))))));
    }

    private static List<PreviewRow> shown(List<SeenRow> rows) {
        List<PreviewRow> all = new ArrayList<>();
        for (SeenRow row : rows) {
            List<PreviewRow.Cell> cells = new ArrayList<>();
            row.cells().forEach(c -> cells.add(new PreviewRow.Cell(c, c, false)));
            all.add(new PreviewRow(row.place() + 1, PreviewRow.Mark.NONE, cells));
        }
        return all;
    }

    /// Where a row of the staged dataset stands in its source.
    void place(SourceFile of, long row, Consumer<Outcome<SourcePlace>> done) {
        background.ask(Request.now("place", "looking where a row stands"), () -> SourcePlace.of(of, row), done);
    }

    /// A column of the staged dataset over the days of another.
    void overTime(SourceFile of, ColumnLook column, ColumnLook days, Consumer<Outcome<Drawing>> done) {
        onData(of, "drawing " + column.name(), d -> OverTime.of(d, column, days), done);
    }

    /// Words for values that the datasets of a shelf hold: the first column of a small one is the value.
    ///
    /// @param shown as it is offered
    record WordList(String dataset, String value, String words, String shown) {}

    /// The lists of words that are here, without asking a server.
    void wordLists(Shelf shelf, Consumer<List<WordList>> done) {
        background.ask(
                Request.now("word lists", "looking for words"),
                () -> {
                    List<WordList> all = new ArrayList<>();
                    shelf.datasets().forEach(d -> Datasets.openHere(shelf, d.name())
                            .value()
                            .map(SourceFile::columns)
                            .filter(c -> c.size() > 1 && c.size() <= MOST_LIST_COLUMNS)
                            .ifPresent(columns -> columns.stream().skip(1).forEach(c -> {
                                String value = columns.getFirst().name();
                                String shown = c.name() + " of " + d.name() + " by " + value;
                                all.add(new WordList(d.name(), value, c.name(), shown));
                            })));
                    return all;
                },
                done);
    }

    /// The words of a list, by value.
    void words(Shelf shelf, WordList list, Consumer<Outcome<Map<String, String>>> done) {
        background.ask(
                Request.now("word lists", "reading words"),
                () -> Counts.labels(shelf, list.dataset(), list.value(), list.words()),
                done);
    }

    void counts(SourceFile of, CountSpec spec, Consumer<Outcome<CountTable>> done) {
        onData(of, "counting", d -> Counts.of(d, spec), done);
    }

    /// The rows of the staged dataset held against those of another.
    void compareRows(
            Shelf shelf, SourceFile of, String other, List<String> keys, Consumer<Outcome<RowsCompared>> done) {
        onData(
                of,
                "comparing rows",
                d -> Datasets.openNamed(shelf, other).then(f -> RowsCompared.of(d, f, keys)),
                done);
    }

    /// The columns of the staged dataset beside those of another.
    void compareColumns(Shelf shelf, SourceFile of, List<String> names, Consumer<Outcome<ColumnsCompared>> done) {
        onData(
                of,
                "comparing columns",
                d -> Datasets.openNamed(shelf, names.getLast())
                        .then(f -> DataLook.open(f, Long.MAX_VALUE))
                        .then(there -> {
                            try (there) {
                                return ColumnsCompared.look(names, List.of(d, there));
                            }
                        }),
                done);
    }
}
