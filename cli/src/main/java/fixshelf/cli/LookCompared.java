package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.problem.Outcome;
import fixshelf.profile.ColumnLook;
import fixshelf.profile.ColumnsCompared;
import fixshelf.profile.DataLook;
import fixshelf.profile.RowsCompared;
import fixshelf.profile.SavedText;
import fixshelf.shelf.Shelf;
import fixshelf.source.SourceFile;
import fixshelf.type.Visible;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;

/// The options of `look` that compare.
final class LookCompared {
    private static final int MOST_CELLS = 40;

    @Option(
            names = "--compare",
            paramLabel = "DATASET|JOB|FILE",
            required = true,
            description =
                    "Set the columns of other tables beside these, of datasets, files, or what jobs make; with --by, the rows of one other table.")
    List<String> others = List.of();

    @Option(names = "--by", paramLabel = "COLUMN", split = ",", description = "The key by which rows are compared.")
    List<String> keys = List.of();

    @Option(names = "--by-place", description = "Compare rows by their place: the first with the first.")
    boolean byPlace;

    @Option(
            names = "--save",
            paramLabel = "FILE",
            description = "Save the cells that differ, at most 2,000, as delimited text.")
    Optional<Path> save = Optional.empty();

    @Option(names = "--only-differences", description = "Leave out columns that are the same everywhere.")
    boolean onlyDifferences;

    int print(LookCommand command, Shelf shelf, DataLook data) {
        List<SourceFile> files = new ArrayList<>();
        for (String other : others) {
            Outcome<SourceFile> file = Sources.open(shelf, other);
            if (!file.isPresent()) {
                return Output.problems(command.out(), command.err(), file.problems(), command.json);
            }
            files.add(file.get());
        }
        if (byPlace && !keys.isEmpty() || save.isPresent() && !byPlace && keys.isEmpty()) {
            throw new ParameterException(
                    command.spec.commandLine(),
                    byPlace
                            ? "Rows are compared by --by, or by --by-place."
                            : "--save goes with --by or --by-place: cells of rows are saved.");
        }
        return keys.isEmpty() && !byPlace
                ? columns(command, data, files)
                : rows(command, shelf, data, files.getFirst());
    }

    private int columns(LookCommand command, DataLook data, List<SourceFile> files) {
        List<DataLook> looks = new ArrayList<>(List.of(data));
        try {
            for (SourceFile file : files) {
                Outcome<DataLook> look = DataLook.open(file, command.first == 0 ? Long.MAX_VALUE : command.first);
                if (!look.isPresent()) {
                    return Output.problems(command.out(), command.err(), look.problems(), command.json);
                }
                looks.add(look.get());
            }
            List<String> names = new ArrayList<>(List.of(command.what));
            names.addAll(others);
            Outcome<ColumnsCompared> compared = ColumnsCompared.look(names, looks);
            if (!compared.isPresent()) {
                return Output.problems(command.out(), command.err(), compared.problems(), command.json);
            }
            if (command.json) {
                Output.json(command.out(), json(compared.get()));
            } else {
                Output.table(command.out(), lines(compared.get()));
            }
            return Output.FINE;
        } finally {
            looks.stream().skip(1).forEach(DataLook::close);
        }
    }

    private List<List<String>> lines(ColumnsCompared compared) {
        List<List<String>> lines = new ArrayList<>();
        List<String> head = new ArrayList<>(List.of("column"));
        head.addAll(compared.tables());
        head.add("difference");
        lines.add(head);
        for (ColumnsCompared.Row row : compared.rows()) {
            String difference = row.difference(compared.tables());
            if (onlyDifferences && difference.isEmpty()) {
                continue;
            }
            List<String> line = new ArrayList<>(List.of(Visible.markOddities(row.name())));
            row.in().forEach(c -> line.add(c.map(l -> kind(row, l)).orElse("–")));
            line.add(difference);
            lines.add(line);
        }
        return lines;
    }

    private static String kind(ColumnsCompared.Row row, ColumnLook column) {
        boolean same = column.name().equals(row.name());
        return column.readsAs() + (same ? "" : " as " + Visible.markOddities(column.name()));
    }

    private ObjectNode json(ColumnsCompared compared) {
        ObjectNode node = Output.object();
        compared.tables().forEach(node.putArray("tables")::add);
        ArrayNode columns = node.putArray("columns");
        compared.rows().stream().filter(r -> !onlyDifferences || !r.isSame()).forEach(r -> {
            ObjectNode one =
                    columns.addObject().put("name", r.name()).put("difference", r.difference(compared.tables()));
            ArrayNode in = one.putArray("in");
            r.in().forEach(c -> in.add(c.map(ColumnLook::readsAs).orElse(null)));
        });
        return node;
    }

    private int rows(LookCommand command, Shelf shelf, DataLook data, SourceFile other) {
        Outcome<RowsCompared> outcome = RowsCompared.of(data, other, keys);
        if (!outcome.isPresent()) {
            return Output.problems(command.out(), command.err(), outcome.problems(), command.json);
        }
        RowsCompared compared = outcome.get();
        if (save.isPresent()) {
            Outcome<Path> saved = SavedText.write(
                    shelf,
                    save.get(),
                    ".csv",
                    SavedText.delimited(compared.lines(command.what, others.getFirst())),
                    false);
            if (!saved.isPresent()) {
                return Output.problems(command.out(), command.err(), saved.problems(), command.json);
            }
        }
        if (command.json) {
            Output.json(command.out(), json(compared));
        } else {
            print(command, compared);
        }
        boolean same = compared.onlyHere() + compared.onlyThere() + compared.differing() + compared.repeated() == 0;
        return same ? Output.FINE : Output.PROBLEMS;
    }

    private void print(LookCommand command, RowsCompared compared) {
        var out = command.out();
        out.println(number(compared.both()) + " rows in both · " + number(compared.onlyHere()) + " only in "
                + command.what + " · " + number(compared.onlyThere()) + " only in " + others.getFirst());
        if (compared.repeated() > 0) {
            out.println(
                    number(compared.repeated()) + " rows have a key that comes several times; they are not compared.");
        }
        if (compared.keyless() > 0) {
            out.println(number(compared.keyless()) + " rows have no key; they are not compared.");
        }
        compared.byColumn().forEach((column, n) -> {
            if (n > 0) {
                long value = compared.byValue().getOrDefault(column, n);
                out.println("  " + column + ": " + number(n) + " differ"
                        + (value == n ? "" : ", " + number(value) + " by value"));
            }
        });
        if (compared.cells().isEmpty()) {
            out.println("No cell differs.");
            return;
        }
        List<List<String>> lines = new ArrayList<>();
        lines.add(List.of(String.join(", ", compared.keys()), "column", command.what, others.getFirst(), ""));
        compared.cells().stream()
                .limit(MOST_CELLS)
                .forEach(c -> lines.add(List.of(
                        String.join(
                                ", ", c.key().stream().map(LookCompared::shown).toList()),
                        c.column(),
                        shown(c.here()),
                        shown(c.there()),
                        c.why())));
        Output.table(out, lines);
        if (compared.differing() > MOST_CELLS) {
            out.println("the first " + MOST_CELLS + " of " + number(compared.differing()));
        }
    }

    private static String shown(@Nullable String value) {
        return value == null ? "missing" : Visible.markOddities(value);
    }

    private static String number(long n) {
        return String.format(Locale.ROOT, "%,d", n);
    }

    private static ObjectNode json(RowsCompared compared) {
        ObjectNode node = Output.object()
                .put("both", compared.both())
                .put("only_here", compared.onlyHere())
                .put("only_there", compared.onlyThere())
                .put("without_key", compared.keyless())
                .put("key_repeats", compared.repeated());
        ArrayNode columns = node.putArray("columns");
        compared.byColumn().forEach((column, n) -> columns.addObject()
                .put("name", column)
                .put("differ", n)
                .put("differ_by_value", compared.byValue().getOrDefault(column, n)));
        ArrayNode cells = node.putArray("cells");
        compared.cells().forEach(c -> {
            ObjectNode one = cells.addObject()
                    .put("column", c.column())
                    .put("here", c.here())
                    .put("there", c.there());
            c.key().forEach(one.putArray("key")::add);
            one.put("why", c.why());
        });
        return node;
    }
}
