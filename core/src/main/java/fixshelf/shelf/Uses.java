package fixshelf.shelf;

import fixshelf.operations.Operations;
import fixshelf.plan.Blank;
import fixshelf.plan.Line;
import fixshelf.plan.ValueKinds;
import fixshelf.plan.Written;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;

/// Where the things of a shelf are used: called in code, called by lines, or named as tables.
final class Uses {
    /// Blanks that name a table or a fix.
    private static final Set<String> NAMING = Set.of("source", "from", "known", "line", "compare");

    private final String name;
    private final Pattern call;

    private Uses(String name) {
        this.name = name;
        this.call = Pattern.compile("\\b" + Pattern.quote(name) + "\\s*\\(", Pattern.CASE_INSENSITIVE);
    }

    /// The names of the fixes, table fixes, datasets and jobs that use the fix, dataset or job of that name.
    static List<String> of(
            String name,
            List<FixPage> fixes,
            List<TableFixPage> tables,
            List<DatasetPage> datasets,
            List<JobPage> jobs) {
        Uses uses = new Uses(name);
        List<String> users = new ArrayList<>();
        fixes.stream()
                .filter(f -> !f.name().equalsIgnoreCase(name)
                        && uses.call.matcher(f.bodyText()).find())
                .forEach(f -> users.add(f.name()));
        tables.stream()
                .filter(t -> !t.name().equalsIgnoreCase(name)
                        && t.allLines().stream().anyMatch(l -> uses.isIn(l.line())))
                .forEach(t -> users.add(t.name()));
        datasets.stream()
                .filter(d -> d.call()
                        .filter(c -> c.loader().equalsIgnoreCase(name)
                                || c.each()
                                        .filter(e -> e.table().equalsIgnoreCase(name))
                                        .isPresent())
                        .isPresent())
                .forEach(d -> users.add(d.name()));
        jobs.stream()
                .filter(j -> j.lines().stream().anyMatch(l -> uses.isIn(l.line())))
                .forEach(j -> users.add(j.name()));
        return users;
    }

    private boolean isIn(Line line) {
        return line.call().equalsIgnoreCase(name)
                || line.blanks().entrySet().stream().anyMatch(b -> names(line, b.getKey(), b.getValue()));
    }

    private boolean names(Line line, String blank, Written written) {
        return switch (written) {
            case Written.Word(String text) ->
                call.matcher(text).find()
                        || text.equalsIgnoreCase(name) && (NAMING.contains(blank) || blank.equals(first(line)));
            case Written.Items(List<Written> items) -> items.stream().anyMatch(i -> isCalled(i));
            case Written.Fields(var fields) ->
                fields.get("in") instanceof Written.Word(String text) && text.equalsIgnoreCase(name)
                        || fields.values().stream().anyMatch(this::isCalled);
        };
    }

    /// The first blank of a line that takes a table.
    private static String first(Line line) {
        return Operations.find(line.call())
                .map(o -> o.blanks().getFirst())
                .filter(b -> b.kind().equals(ValueKinds.SOURCE))
                .map(Blank::name)
                .orElse("");
    }

    private boolean isCalled(Written written) {
        return switch (written) {
            case Written.Word(String text) -> call.matcher(text).find();
            case Written.Items(List<Written> items) -> items.stream().anyMatch(this::isCalled);
            case Written.Fields(var fields) -> fields.values().stream().anyMatch(this::isCalled);
        };
    }
}
