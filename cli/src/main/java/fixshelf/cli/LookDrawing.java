package fixshelf.cli;

import fixshelf.problem.Outcome;
import fixshelf.profile.ColumnLook;
import fixshelf.profile.DataLook;
import fixshelf.profile.Drawing;
import fixshelf.profile.OverTime;
import fixshelf.profile.SavedText;
import fixshelf.profile.SvgDrawing;
import fixshelf.profile.TableLook;
import fixshelf.shelf.Shelf;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Option;

/// The options of `look` that draw.
final class LookDrawing {
    @Option(
            names = "--drawing",
            paramLabel = "FILE",
            required = true,
            description = "Draw a column into this file, .svg or .png.")
    Path file = Path.of("");

    @Option(names = "--column", paramLabel = "NAME", required = true, description = "The column that is drawn.")
    String column = "";

    @Option(
            names = "--of",
            paramLabel = "WHAT",
            description = "spread, commonest or filled (by place in the table); what suits the column when left out.")
    Optional<Drawing.Kind> kind = Optional.empty();

    @Option(
            names = "--over",
            paramLabel = "COLUMN",
            description =
                    "Draw the values over the days of this column: the mean of numbers, else how many are filled.")
    Optional<String> over = Optional.empty();

    @Option(names = "--dark", description = "For a dark sheet.")
    boolean dark;

    @Option(names = "--replace", description = "A file of that name may be replaced.")
    boolean replace;

    int write(LookCommand command, Shelf shelf, DataLook data) {
        Outcome<TableLook> table = data.columns(List.of());
        if (!table.isPresent()) {
            return Output.problems(command.out(), command.err(), table.problems(), command.json);
        }
        List<String> names =
                table.get().columns().stream().map(ColumnLook::name).toList();
        for (String wanted : over.map(o -> List.of(column, o)).orElse(List.of(column))) {
            if (find(table.get(), wanted).isEmpty()) {
                return command.unknown("column", wanted, names);
            }
        }
        ColumnLook found = find(table.get(), column).orElseThrow();
        Outcome<Drawing> drawn = over.isPresent()
                ? OverTime.of(data, found, find(table.get(), over.get()).orElseThrow())
                : Outcome.of(Drawing.of(
                        found, kind.orElse(found.isMeasured() ? Drawing.Kind.SPREAD : Drawing.Kind.COMMONEST)));
        Outcome<Path> written = drawn.then(d -> file.toString().endsWith(".png")
                ? SavedText.write(shelf, file, ".png", PngDrawing.write(d, dark), replace)
                : SavedText.write(shelf, file, ".svg", SvgDrawing.write(d, dark), replace));
        if (!written.isPresent()) {
            return Output.problems(command.out(), command.err(), written.problems(), command.json);
        }
        if (command.json) {
            Output.json(command.out(), Output.object().put("file", written.get().toString()));
        } else {
            command.out().println("Drawn into " + written.get() + ".");
        }
        return Output.FINE;
    }

    private static Optional<ColumnLook> find(TableLook table, String name) {
        return table.columns().stream()
                .filter(c -> c.name().equalsIgnoreCase(name))
                .findFirst();
    }
}
