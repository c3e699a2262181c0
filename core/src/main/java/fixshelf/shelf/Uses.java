package fixshelf.shelf;

import fixshelf.language.tree.Lexer;
import fixshelf.operations.Operations;
import fixshelf.plan.Blank;
import fixshelf.plan.Line;
import fixshelf.plan.ValueKinds;
import fixshelf.plan.Written;
import fixshelf.problem.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/// Where the things of a shelf are used: called in code, called by lines, or named as tables.
final class Uses {
    /// Blanks that name a table or a fix.
    private static final Set<String> NAMING = Set.of("source", "from", "known", "line", "compare");

    private final String name;

    private Uses(String name) {
        this.name = name;
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
                .filter(f -> !f.name().equalsIgnoreCase(name) && uses.isIn(f))
                .forEach(f -> users.add(f.name()));
        tables.stream()
                .filter(t -> !t.name().equalsIgnoreCase(name) && uses.isIn(TableFixEdits.asLines(t)))
                .forEach(t -> users.add(t.name()));
        datasets.stream()
                .filter(d -> d.call()
                        .filter(c -> c.loader().equalsIgnoreCase(name)
                                || c.each()
                                        .filter(e -> e.table().equalsIgnoreCase(name))
                                        .isPresent())
                        .isPresent())
                .forEach(d -> users.add(d.name()));
        jobs.stream().filter(uses::isIn).forEach(j -> users.add(j.name()));
        return users;
    }

    private boolean isIn(FixPage page) {
        return !calls(page.bodyText(), name).isEmpty()
                || page.promises().stream().anyMatch(p -> p.fix().equalsIgnoreCase(name));
    }

    private boolean isIn(JobPage page) {
        boolean line = isNameOfLine(page, name);
        return page.lines().stream().anyMatch(l -> isIn(l.line(), line));
    }

    /// Whether a line has the name, so that lines which name a table of that name mean the line.
    static boolean isNameOfLine(JobPage page, String name) {
        return page.lines().stream().anyMatch(l -> l.line().name().equalsIgnoreCase(name));
    }

    private boolean isIn(Line line, boolean nameOfLine) {
        return line.call().equalsIgnoreCase(name)
                || line.blanks().entrySet().stream().anyMatch(b -> names(line, b.getKey(), b.getValue(), nameOfLine));
    }

    /// Where a name is called in code: not in a text in quotes, nor as a part of another name.
    static List<Span> calls(String code, String name) {
        if (!code.toLowerCase(Locale.ROOT).contains(name.toLowerCase(Locale.ROOT))) {
            return List.of();
        }
        List<Lexer.Token> tokens = Lexer.tokens(code);
        List<Span> calls = new ArrayList<>();
        for (int i = 0; i + 1 < tokens.size(); i++) {
            if (tokens.get(i).in(code).equalsIgnoreCase(name)
                    && tokens.get(i + 1).in(code).equals("(")) {
                calls.add(tokens.get(i).span());
            }
        }
        return calls;
    }

    /// Whether a blank names a fix.
    static boolean namesFix(String blank) {
        return blank.equals("compare");
    }

    /// Whether a blank of a line names a table.
    static boolean namesTable(Line line, String blank) {
        return !namesFix(blank) && (NAMING.contains(blank) || blank.equals(first(line)));
    }

    private boolean names(Line line, String blank, Written written, boolean nameOfLine) {
        return switch (written) {
            case Written.Word(String text) ->
                !calls(text, name).isEmpty()
                        || text.equalsIgnoreCase(name) && (namesFix(blank) || !nameOfLine && namesTable(line, blank));
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
            case Written.Word(String text) -> !calls(text, name).isEmpty();
            case Written.Items(List<Written> items) -> items.stream().anyMatch(this::isCalled);
            case Written.Fields(var fields) -> fields.values().stream().anyMatch(this::isCalled);
        };
    }
}
