package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.problem.Outcome;
import fixshelf.profile.CountSpec;
import fixshelf.profile.CountTable;
import fixshelf.profile.Counts;
import fixshelf.profile.CountsChecked;
import fixshelf.profile.DataLook;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.KeptCounts;
import fixshelf.shelf.Shelf;
import fixshelf.type.Amounts;
import fixshelf.type.Column;
import fixshelf.type.Visible;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;

/// The options of `look` that count.
final class LookCounts {
    private static final Pattern LABELS = Pattern.compile("(.+)=([\\p{L}\\p{N}_]+)\\((.+),(.+)\\)");

    @Option(
            names = "--counts",
            paramLabel = "COLUMN",
            split = ",",
            required = true,
            description =
                    "Count the values of one column, of two against each other, or that for each value of a third.")
    List<String> columns = List.of();

    @Option(names = "--percent-of", paramLabel = "BASE", description = "What a per cent is of: row, column or all.")
    Optional<CountSpec.Base> base = Optional.empty();

    @Option(names = "--decimals", paramLabel = "N", defaultValue = "1", description = "Digits after the point, 0 to 6.")
    int decimals = 1;

    @Option(
            names = "--halves",
            paramLabel = "WHERE",
            defaultValue = "away",
            description = "Halves are rounded away from zero, or to the even digit: away or even.")
    CountSpec.Halves halves = CountSpec.Halves.AWAY;

    @Option(
            names = "--cells",
            paramLabel = "WHAT",
            description = "What stands in a cell: count, percent, count_percent or percent_count.")
    Optional<CountSpec.Show> show = Optional.empty();

    @Option(
            names = "--totals",
            paramLabel = "WHICH",
            defaultValue = "both",
            description = "none, rows, columns or both.")
    CountSpec.Totals totals = CountSpec.Totals.BOTH;

    @Option(
            names = "--labels",
            paramLabel = "COLUMN=DATASET(KEY,LABEL)",
            description = "Other words for the values of a column, out of a dataset.")
    List<String> labels = List.of();

    @Option(
            names = "--keep",
            description =
                    "Keep the counts in the page of the dataset: each look at it, and check --data, then tell what is other.")
    boolean keep;

    /// Keeps the counts, and says so.
    private int keep(LookCommand command, Shelf shelf, DataLook data, List<Integer> places) {
        DatasetPage page = shelf.dataset(command.what).orElseThrow();
        List<String> names =
                places.stream().map(i -> data.file().columns().get(i).name()).toList();
        Outcome<Shelf> kept = CountsChecked.of(data, names).then(counts -> KeptCounts.write(shelf, page, counts));
        if (!kept.isPresent()) {
            return Output.problems(command.out(), command.err(), kept.problems(), command.json);
        }
        if (!command.json) {
            command.out().println("Kept in " + page.source().name() + ".");
        }
        return Output.FINE;
    }

    int print(LookCommand command, Shelf shelf, DataLook data) {
        List<Column> known = data.file().columns();
        List<Integer> places = new ArrayList<>();
        for (String name : columns) {
            Optional<Integer> place = place(known, name);
            if (place.isEmpty()) {
                return command.unknown(
                        "column", name, known.stream().map(Column::name).toList());
            }
            places.add(place.get());
        }
        if (places.size() > 3 || decimals < 0 || decimals > 6) {
            throw new ParameterException(
                    command.spec.commandLine(),
                    places.size() > 3 ? "--counts takes up to three columns." : "--decimals goes from 0 to 6.");
        }
        if (keep && (shelf.dataset(command.what).isEmpty() || !data.isWhole())) {
            throw new ParameterException(
                    command.spec.commandLine(),
                    "--keep is about all rows of a dataset of the shelf; a file has no page.");
        }
        CountSpec usual = CountSpec.of(places);
        CountSpec spec = usual.withBase(base.orElse(usual.base()))
                .withDecimals(decimals)
                .withHalves(halves)
                .withShow(show.orElse(usual.show()))
                .withTotals(totals)
                .withLabels(labels(command, shelf, known));
        Outcome<CountTable> table = Counts.of(data, spec);
        if (!table.isPresent()) {
            return Output.problems(command.out(), command.err(), table.problems(), command.json);
        }
        if (command.json) {
            Output.json(command.out(), json(table.get()));
        } else {
            print(command, data, table.get());
        }
        return keep ? keep(command, shelf, data, places) : Output.FINE;
    }

    private static Optional<Integer> place(List<Column> columns, String name) {
        return IntStream.range(0, columns.size())
                .filter(i -> columns.get(i).name().equalsIgnoreCase(name.strip()))
                .boxed()
                .findFirst();
    }

    private Map<Integer, Map<String, String>> labels(LookCommand command, Shelf shelf, List<Column> known) {
        Map<Integer, Map<String, String>> all = new HashMap<>();
        for (String label : labels) {
            Matcher matcher = LABELS.matcher(label);
            Optional<Integer> column = matcher.matches() ? place(known, matcher.group(1)) : Optional.empty();
            if (column.isEmpty()) {
                throw new ParameterException(
                        command.spec.commandLine(),
                        "--labels is written as outcome=outcomes(code,words), with a column that is there, not " + label
                                + ".");
            }
            Outcome<Map<String, String>> words = Counts.labels(
                    shelf,
                    matcher.group(2),
                    matcher.group(3).strip(),
                    matcher.group(4).strip());
            if (!words.isPresent()) {
                throw new ParameterException(
                        command.spec.commandLine(), words.problems().getFirst().sentence());
            }
            all.put(column.get(), words.get());
        }
        return all;
    }

    private static void print(LookCommand command, DataLook data, CountTable table) {
        command.out()
                .println(table.title() + ", "
                        + (data.isWhole() ? Amounts.all(data.rows(), "row") : Amounts.first(data.rows(), "row")));
        for (CountTable.Sheet sheet : table.sheets()) {
            command.out().println();
            sheet.of().ifPresent(command.out()::println);
            Output.table(
                    command.out(),
                    table.shown(sheet).stream()
                            .map(l -> l.stream().map(Visible::markOddities).toList())
                            .toList());
            table.notes(sheet).forEach(command.out()::println);
        }
    }

    private static ObjectNode json(CountTable table) {
        ObjectNode node = Output.object().put("title", table.title());
        ArrayNode sheets = node.putArray("tables");
        for (CountTable.Sheet sheet : table.sheets()) {
            ObjectNode one = sheets.addObject();
            sheet.of().ifPresent(o -> one.put("of", o));
            lines(one.putArray("shown"), table.shown(sheet));
            lines(one.putArray("numbers"), table.numbers(sheet));
            table.notes(sheet).forEach(one.putArray("notes")::add);
        }
        return node;
    }

    private static void lines(ArrayNode array, List<List<String>> lines) {
        lines.forEach(l -> {
            ArrayNode line = array.addArray();
            l.forEach(line::add);
        });
    }
}
