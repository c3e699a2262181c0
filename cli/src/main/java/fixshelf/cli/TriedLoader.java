package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.plan.Blank;
import fixshelf.plan.Line;
import fixshelf.plan.Written;
import fixshelf.problem.Outcome;
import fixshelf.problem.Span;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.TableFixPage;
import fixshelf.type.Column;
import fixshelf.type.Type;
import fixshelf.work.LineEffect;
import fixshelf.work.PlannedJob;
import fixshelf.work.Preview;
import fixshelf.work.PreviewRow;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;

/// A loader that is called at once: the first rows that it gives for these arguments.
final class TriedLoader {
    private static final int ROWS = 20;

    private final TryCommand command;
    private final Shelf shelf;
    private final TableFixPage page;

    TriedLoader(TryCommand command, Shelf shelf, TableFixPage page) {
        this.command = command;
        this.shelf = shelf;
        this.page = page;
    }

    /// @param given its arguments, in order or as `name=value`
    int run(List<String> given) {
        Optional<Map<String, Written>> arguments = arguments(given);
        if (arguments.isEmpty()) {
            return Output.WRONG_USE;
        }
        Line call = new Line(page.name(), arguments.get());
        JobPage job = new JobPage(
                page.file(),
                page.source(),
                "try",
                page.title(),
                "",
                Map.of(),
                List.of(new JobPage.PlacedLine(call, "", Span.NONE)),
                List.of(),
                "",
                List.of());
        Outcome<PlannedJob> planned = PlannedJob.plan(shelf, job, Map.of());
        Outcome<Preview> opened = planned.then(p -> Preview.open(p.source()));
        if (!opened.isPresent()) {
            return Output.problems(command.out(), command.err(), opened.problems(), command.json);
        }
        try (Preview preview = opened.get()) {
            return print(planned.get(), preview);
        }
    }

    private Optional<Map<String, Written>> arguments(List<String> given) {
        List<String> names = page.parameters().stream().map(Blank::name).toList();
        Map<String, Written> arguments = new LinkedHashMap<>();
        int next = 0;
        for (String argument : given) {
            int equals = argument.indexOf('=');
            boolean named = equals > 0 && names.contains(argument.substring(0, equals));
            if (!named && next >= names.size()) {
                command.err()
                        .println(page.name() + " has no place for " + argument + ". It takes "
                                + String.join(", ", names) + ".");
                return Optional.empty();
            }
            String name = named ? argument.substring(0, equals) : names.get(next++);
            arguments.put(name, Written.word(named ? argument.substring(equals + 1) : argument));
        }
        return Optional.of(arguments);
    }

    private int print(PlannedJob planned, Preview preview) {
        Outcome<List<LineEffect>> effects = preview.look(planned);
        Outcome<List<PreviewRow>> rows = effects.then(_ -> preview.rows(planned, 1, Preview.View.ALL, 0, ROWS));
        if (!rows.isPresent()) {
            return Output.problems(command.out(), command.err(), rows.problems(), command.json);
        }
        List<Column> columns = planned.plan().columns();
        if (command.json) {
            ObjectNode node = Output.object()
                    .put("loader", page.name())
                    .put("rows", effects.get().getFirst().rowsAfter());
            preview.notes().forEach(node.putArray("notes")::add);
            ArrayNode all = node.putArray("first");
            rows.get().forEach(r -> PreviewCommand.row(all.addObject(), r, columns));
            Output.json(command.out(), node);
            return Output.FINE;
        }
        Effects.print(command.out(), shelf, planned, effects.get(), List.of());
        preview.notes().forEach(command.out()::println);
        command.out().println();
        List<List<String>> table = new ArrayList<>();
        table.add(Stream.concat(
                        Stream.of("row"),
                        columns.stream()
                                .map(c -> c.name()
                                        + (c.type().equals(Type.TEXT)
                                                ? ""
                                                : ": " + c.type().label())))
                .toList());
        rows.get().forEach(r -> table.add(PreviewCommand.texts(r)));
        Output.table(command.out(), table);
        return Output.FINE;
    }
}
