package fixshelf.desktop.jobs;

import fixshelf.operations.Operations;
import fixshelf.plan.Blank;
import fixshelf.plan.Kind;
import fixshelf.plan.Line;
import fixshelf.plan.Operation;
import fixshelf.plan.Written;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.TableFixPage;
import fixshelf.type.Column;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/// The lines that can be added to a job, by the words that offer them.
public final class NewLines {
    private NewLines() {}

    /// A line that can be added.
    ///
    /// @param words what it does, with its name
    /// @param purpose plain words by which it is found too
    /// @param line with its blanks filled as it begins
    public record Offered(String words, String purpose, Line line) {
        String searched() {
            return words + " " + purpose;
        }
    }

    /// What can be added to a job with these columns; nothing when there are none yet.
    public static List<Offered> offered(Shelf shelf, List<Column> columns) {
        List<Offered> all = new ArrayList<>();
        if (columns.isEmpty()) {
            return all;
        }
        Kind.Choices choices = new Kind.Choices(
                columns,
                shelf.datasets().stream().map(d -> d.name()).toList(),
                shelf.fixes().stream().map(f -> f.name()).toList());
        for (FixPage fix : shelf.fixes()) {
            Operation called = fix.called();
            all.add(new Offered(words(called), fix.summary(), fixLine(fix, called, choices)));
        }
        shelf.tableFixes().stream()
                .filter(t -> !t.isLoader())
                .map(shelf::operation)
                .forEach(o -> all.add(new Offered(words(o), o.about().purpose(), line(o, choices))));
        shelf.tableFixes().stream()
                .filter(TableFixPage::isLoader)
                .flatMap(t -> shelf.callables().find(t.name()).stream())
                .forEach(o -> all.add(new Offered(words(o), o.about().purpose(), line(o, choices))));
        for (Operation operation : Operations.added()) {
            all.add(new Offered(words(operation), operation.about().purpose(), line(operation, choices)));
        }
        return all;
    }

    private static String words(Operation operation) {
        return operation.sentence().replaceAll("\\{[^}]*}", "…") + "  (" + operation.name() + ")";
    }

    private static Line line(Operation operation, Kind.Choices choices) {
        Map<String, Written> blanks = new LinkedHashMap<>();
        for (Blank<?> blank : operation.blanks()) {
            if (blank.begins()) {
                blank.kind().beginning(choices).ifPresent(w -> blanks.put(blank.name(), w));
            }
        }
        return new Line(operation.name(), blanks);
    }

    /// On every text column where the fix takes text, else on those that it takes.
    private static Line fixLine(FixPage fix, Operation operation, Kind.Choices choices) {
        Optional<Type> wanted = fix.parameters().stream().findFirst().map(p -> p.type());
        List<String> fitting = choices.columns().stream()
                .filter(c -> wanted.isEmpty() || c.type().fits(wanted.get()))
                .map(Column::name)
                .toList();
        boolean text = wanted.isEmpty() || wanted.get().equals(Type.TEXT) || fitting.isEmpty();
        Written columns = text ? Written.word("every text column") : Written.words(fitting);
        return line(operation, choices).with("columns", Optional.of(columns));
    }
}
