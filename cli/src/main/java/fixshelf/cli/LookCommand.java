package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.profile.ColumnLook;
import fixshelf.profile.CountsChecked;
import fixshelf.profile.DataLook;
import fixshelf.profile.EarlierLook;
import fixshelf.profile.Finding;
import fixshelf.profile.KnownList;
import fixshelf.profile.Remedies;
import fixshelf.profile.Remedy;
import fixshelf.profile.TableLook;
import fixshelf.shelf.Shelf;
import fixshelf.source.SourceFile;
import fixshelf.source.SourcePlace;
import fixshelf.type.Visible;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.ToLongFunction;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.ArgGroup;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;

@Command(
        name = "look",
        mixinStandardHelpOptions = true,
        description = "Look at a dataset or a file: each column, what is odd in it, and which fixes would help.")
final class LookCommand extends ShelfOption {
    private static final int MOST_OF_SENTENCE = 120;

    @Parameters(paramLabel = "DATASET|FILE", description = "The name of a dataset, or a file.")
    String what = "";

    @Option(names = "--first", paramLabel = "N", description = "Look at the first N rows only; all rows when left out.")
    long first;

    @Option(names = "--no-remedies", description = "Do not try which fixes would help.")
    boolean noRemedies;

    @ArgGroup(exclusive = true)
    @Nullable
    Other other;

    /// What else than the columns is looked at.
    static final class Other {
        @ArgGroup(exclusive = false)
        @Nullable
        LookCounts counts;

        @ArgGroup(exclusive = false)
        @Nullable
        LookCompared compared;

        @ArgGroup(exclusive = false)
        @Nullable
        LookDrawing drawing;

        @Option(names = "--row", paramLabel = "N", description = "Where row N, from 1, stands in the source, and how.")
        long row;

        @Option(names = "--since", description = "What is other than when all of the dataset was last looked at.")
        boolean since;
    }

    @Override
    public Integer call() {
        wantCount("--first", first);
        return onShelf(this::look);
    }

    private int look(Shelf shelf) {
        Outcome<SourceFile> opened = Sources.open(shelf, what);
        if (other != null && other.row > 0) {
            return row(opened, other.row);
        }
        Outcome<DataLook> staged = opened.then(f -> DataLook.open(f, first == 0 ? Long.MAX_VALUE : first));
        if (!staged.isPresent()) {
            return Output.problems(out(), err(), staged.problems(), json);
        }
        try (DataLook data = staged.get()) {
            if (other != null && other.counts != null) {
                return other.counts.print(this, shelf, data);
            }
            if (other != null && other.compared != null) {
                return other.compared.print(this, shelf, data);
            }
            if (other != null && other.drawing != null) {
                return other.drawing.write(this, shelf, data);
            }
            if (other != null && other.since && (shelf.dataset(what).isEmpty() || first > 0)) {
                throw new ParameterException(
                        spec.commandLine(), "--since is about all rows of a dataset of the shelf; a file has no page.");
            }
            return columns(shelf, data);
        }
    }

    private int row(Outcome<SourceFile> file, long row) {
        Outcome<SourcePlace> place = file.then(f -> SourcePlace.of(f, row - 1));
        if (!place.isPresent()) {
            return Output.problems(out(), err(), place.problems(), json);
        }
        if (json) {
            Output.json(
                    out(),
                    Output.object()
                            .put("place", place.get().shown())
                            .put("raw", place.get().raw()));
        } else {
            out().println(place.get().shown());
            place.get().raw().lines().map(Visible::markOddities).forEach(out()::println);
        }
        return Output.FINE;
    }

    private int columns(Shelf shelf, DataLook data) {
        Outcome<TableLook> table = data.columns(KnownList.of(shelf, data.file()));
        if (!table.isPresent()) {
            return Output.problems(out(), err(), table.problems(), json);
        }
        List<Problem> bad = data.careful().stream()
                .filter(c -> c.badCount() > 0)
                .map(c -> c.problem(data.file()))
                .toList();
        boolean dataset = shelf.dataset(what).isPresent();
        Optional<EarlierLook> earlier = dataset ? EarlierLook.last(shelf.root(), what) : Optional.empty();
        if (dataset) {
            EarlierLook.keep(shelf.root(), what, table.get(), Instant.now());
        }
        if (other != null && other.since) {
            return since(earlier, table.get());
        }
        Map<Finding, List<Remedy>> remedies = noRemedies
                ? Map.of()
                : new Remedies(data, shelf).of(table.get()).value().orElse(Map.of());
        // What a page keeps is of all rows.
        List<String> other = shelf.dataset(what)
                .filter(_ -> data.isWhole())
                .map(p -> CountsChecked.differences(data, p).value().orElse(List.of()))
                .orElse(List.of());
        if (json) {
            ObjectNode node = json(table.get(), remedies, bad);
            data.notes().forEach(node.putArray("notes")::add);
            other.forEach(node.putArray("other_than_kept")::add);
            Output.json(out(), node);
        } else {
            print(table.get(), remedies);
            data.notes().forEach(out()::println);
            if (!other.isEmpty()) {
                out().println();
                out().println("Other than the counts that its page keeps:");
                other.forEach(o -> out().println("  " + o));
            }
            if (data.isWhole()) {
                earlier.ifPresent(e -> printDifferences(e, table.get()));
            }
            Output.problems(out(), err(), bad, false);
        }
        return bad.isEmpty() && other.isEmpty() ? Output.FINE : Output.PROBLEMS;
    }

    private int since(Optional<EarlierLook> earlier, TableLook table) {
        List<String> differences = earlier.map(e -> e.differences(table)).orElse(List.of());
        if (json) {
            ObjectNode node = Output.object()
                    .put("at", earlier.map(e -> e.at().toString()).orElse(null));
            differences.forEach(node.putArray("differences")::add);
            Output.json(out(), node);
        } else if (earlier.isEmpty()) {
            out().println("It was not looked at before; now its counts are kept.");
        } else {
            printDifferences(earlier.get(), table);
        }
        return differences.isEmpty() ? Output.FINE : Output.PROBLEMS;
    }

    private void printDifferences(EarlierLook earlier, TableLook table) {
        List<String> differences = earlier.differences(table);
        out().println();
        if (differences.isEmpty()) {
            out().println("The same as when it was looked at on " + when(earlier) + ".");
        } else {
            out().println("Other than when it was looked at on " + when(earlier) + ":");
            differences.forEach(d -> out().println("  " + d));
        }
    }

    private static String when(EarlierLook earlier) {
        return DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm", Locale.ROOT)
                .format(earlier.at().atZone(ZoneId.systemDefault()));
    }

    /// A way in which a row can be without a value.
    private record State(String name, ToLongFunction<ColumnLook> rows) {}

    private void print(TableLook table, Map<Finding, List<Remedy>> remedies) {
        out().println((table.whole() ? "all " : "the first ")
                + number(table.rows())
                + (table.rows() == 1 ? " row, " : " rows, ")
                + table.columns().size()
                + (table.columns().size() == 1 ? " column" : " columns"));
        List<List<String>> rows = new ArrayList<>();
        List<State> states = Stream.of(
                        new State("missing", ColumnLook::missing),
                        new State("empty", ColumnLook::empty),
                        new State("blanks only", ColumnLook::blank),
                        new State("errors", ColumnLook::errors))
                .filter(s -> table.columns().stream().anyMatch(c -> s.rows().applyAsLong(c) > 0))
                .toList();
        List<String> heading = new ArrayList<>(List.of("column", "reads as", "filled"));
        states.forEach(s -> heading.add(s.name()));
        heading.addAll(List.of("distinct", "lengths", "from … to, or commonest"));
        rows.add(heading);
        for (ColumnLook column : table.columns()) {
            List<String> row = new ArrayList<>(
                    List.of(Visible.markOddities(column.name()), column.readsAs(), number(column.filled())));
            states.forEach(s -> row.add(number(s.rows().applyAsLong(column))));
            row.addAll(List.of(
                    number(column.distinct()),
                    column.distinct() == 0 ? "" : column.shortest() + "–" + column.longest(),
                    range(column)));
            rows.add(row);
        }
        Output.table(out(), rows);
        out().println();
        if (table.all().isEmpty()) {
            out().println("Nothing is odd.");
            return;
        }
        List<List<String>> odd = new ArrayList<>();
        odd.add(List.of("column", "what to look at", "what would help, tried"));
        for (Finding finding : table.all()) {
            String name = finding.column() < 0
                    ? "(rows)"
                    : table.columns().get(finding.column()).name();
            List<String> help = remedies.getOrDefault(finding, List.of()).stream()
                    .map(r -> r.name() + (r.words().isEmpty() ? "" : " (" + r.words() + ")"))
                    .toList();
            odd.add(List.of(Visible.markOddities(name), finding.sentence(), help.isEmpty() ? "" : help.getFirst()));
            help.stream().skip(1).forEach(h -> odd.add(List.of("", "", h)));
        }
        Output.table(out(), odd, MOST_OF_SENTENCE);
    }

    /// From the least to the greatest value, where they are measured; else the commonest.
    private static String range(ColumnLook column) {
        if (column.isMeasured()) {
            return column.least() + " … " + column.greatest();
        }
        return String.join(
                " · ",
                column.commonest().stream()
                        .limit(2)
                        .map(c -> Visible.markOddities(c.value()) + " " + number(c.rows()))
                        .toList());
    }

    private static String number(long n) {
        return String.format(Locale.ROOT, "%,d", n);
    }

    private ObjectNode json(TableLook table, Map<Finding, List<Remedy>> remedies, List<Problem> bad) {
        ObjectNode node = Output.object().put("rows", table.rows()).put("all_rows", table.whole());
        ArrayNode columns = node.putArray("columns");
        for (ColumnLook column : table.columns()) {
            ObjectNode one = columns.addObject()
                    .put("name", column.name())
                    .put("reads_as", column.readsAs())
                    .put("filled", column.filled())
                    .put("missing", column.missing())
                    .put("errors", column.errors())
                    .put("empty", column.empty())
                    .put("blank", column.blank())
                    .put("distinct", column.distinct())
                    .put("shortest", column.shortest())
                    .put("longest", column.longest())
                    .put("least", column.least())
                    .put("greatest", column.greatest());
            ArrayNode common = one.putArray("commonest");
            column.commonest().stream()
                    .limit(10)
                    .forEach(c -> common.addObject().put("value", c.value()).put("rows", c.rows()));
            column.bins().forEach(one.putArray("spread")::add);
            column.filledByPlace().forEach(one.putArray("filled_by_place")::add);
        }
        ArrayNode odd = node.putArray("odd");
        for (Finding finding : table.all()) {
            ObjectNode one = odd.addObject()
                    .put("kind", finding.oddity().id())
                    .put(
                            "column",
                            finding.column() < 0
                                    ? null
                                    : table.columns().get(finding.column()).name())
                    .put("rows", finding.rows())
                    .put("what", finding.sentence());
            finding.values().stream().limit(10).forEach(one.putArray("values")::add);
            finding.places().stream().limit(10).forEach(p -> one.withArray("places")
                    .add(p + 1));
            ArrayNode help = one.putArray("remedies");
            remedies.getOrDefault(finding, List.of()).forEach(r -> help.addObject()
                    .put("call", r.name())
                    .put("odd", r.odd())
                    .put("rid", r.rid())
                    .put("others", r.others())
                    .put("missing", r.missing())
                    .put("tried", r.tried()));
        }
        Output.problems(node, bad);
        return node;
    }
}
