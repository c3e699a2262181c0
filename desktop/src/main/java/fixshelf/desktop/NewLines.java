package fixshelf.desktop;

import fixshelf.language.Parameter;
import fixshelf.plan.Columns;
import fixshelf.plan.Line;
import fixshelf.shelf.FixPage;
import fixshelf.shelf.Shelf;
import fixshelf.type.Column;
import fixshelf.type.Type;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/// The lines that can be added to a job, by the words that offer them.
final class NewLines {
    private NewLines() {}

    /// Words and the line that they begin with, for a job with these columns; empty when there are none yet.
    static Map<String, Line> offered(Shelf shelf, List<Column> columns) {
        Map<String, Line> all = new LinkedHashMap<>();
        if (columns.isEmpty()) {
            return all;
        }
        for (FixPage fix : shelf.fixes()) {
            all.put(fix.sentence().replaceAll("\\{[^}]*}", "…") + "  (" + fix.name() + ")", apply(fix, columns));
        }
        String first = columns.getFirst().name();
        all.put("Drop rows that repeat a key", new Line.DropRepeats(List.of(first), Line.Keep.LAST, List.of()));
        all.put(
                "Keep only some columns",
                new Line.Choose(columns.stream().map(Column::name).toList()));
        all.put("Leave out columns", new Line.Drop(List.of(columns.getLast().name())));
        all.put("Rename columns", new Line.Rename(Map.of(first, first)));
        return all;
    }

    private static Line apply(FixPage fix, List<Column> columns) {
        Map<String, String> arguments = new LinkedHashMap<>();
        for (Parameter parameter : fix.parameters().stream().skip(1).toList()) {
            if (!parameter.isOptional()) {
                arguments.put(
                        parameter.name(),
                        switch (parameter.type()) {
                            case Type.Text _, Type.Unknown _ -> "''";
                            case Type.Int _, Type.Num _, Type.Decimal _ -> "0";
                            case Type.Bool _ -> "FALSE";
                            case Type.Date _ -> "DATE '2026-01-01'";
                            case Type.Timestamp _ -> "TIMESTAMP '2026-01-01 00:00:00'";
                            case Type.ListOf _ -> "ARRAY[]";
                            case Type.Mapping _ -> "MAP[]";
                        });
            }
        }
        boolean text = fix.parameters().stream()
                .findFirst()
                .map(p -> p.type().equals(Type.TEXT))
                .orElse(true);
        List<String> fitting = columns.stream()
                .filter(c -> fix.parameters().isEmpty()
                        || c.type().fits(fix.parameters().getFirst().type()))
                .map(Column::name)
                .toList();
        Columns selection = text || fitting.isEmpty() ? new Columns.EveryText() : new Columns.Named(fitting);
        return new Line.Apply(fix.name(), selection, arguments);
    }
}
