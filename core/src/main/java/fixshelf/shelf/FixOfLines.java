package fixshelf.shelf;

import fixshelf.language.Lexer;
import fixshelf.plan.Line;
import fixshelf.plan.Operation;
import fixshelf.plan.Written;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;

/// Lines of a job as a table fix of their own: the columns that they name become its parameters, and so do the new
/// columns that they leave behind.
public final class FixOfLines {
    private final Function<String, Optional<Operation>> operations;
    /// The names that lines use, in lower case, with the parameters that stand for them.
    private final Map<String, String> parameters = new LinkedHashMap<>();

    private final Map<String, String> columns = new LinkedHashMap<>();
    private final Map<String, String> made = new LinkedHashMap<>();

    private FixOfLines(Function<String, Optional<Operation>> operations) {
        this.operations = operations;
    }

    /// The text of the page, and the line that calls it in place of the lines.
    public record Made(String page, Line call) {}

    /// @param name of the fix
    /// @param input the name of the line whose table the first of the lines works on; empty for none
    /// @param before the names of the columns before the first of the lines
    /// @param after those after the last of them
    /// @param operations what lines can call
    public static Made of(
            String name,
            String title,
            String input,
            List<Line> lines,
            List<String> before,
            List<String> after,
            Function<String, Optional<Operation>> operations) {
        FixOfLines fix = new FixOfLines(operations);
        Map<String, String> known = new LinkedHashMap<>();
        before.forEach(c -> known.put(c.toLowerCase(Locale.ROOT), c));
        Map<String, String> left = new LinkedHashMap<>();
        after.stream()
                .filter(c -> !known.containsKey(c.toLowerCase(Locale.ROOT)))
                .forEach(c -> left.put(c.toLowerCase(Locale.ROOT), c));
        // Once to see what is named, once to write it.
        for (Line line : lines) {
            fix.rewritten(line, used -> {
                String lower = used.toLowerCase(Locale.ROOT);
                if (known.containsKey(lower)) {
                    fix.columns.putIfAbsent(lower, known.get(lower));
                } else if (left.containsKey(lower)) {
                    fix.made.putIfAbsent(lower, left.get(lower));
                }
                return Optional.empty();
            });
        }
        fix.columns.values().forEach(fix::parameter);
        fix.made.values().forEach(fix::parameter);
        List<Line> written = lines.stream()
                .map(l -> fix.rewritten(
                        l, used -> Optional.ofNullable(fix.parameters.get(used.toLowerCase(Locale.ROOT)))))
                .toList();
        // Lines that come back to the table that goes in need a name for it.
        Line named = new Line("choose", Map.of("columns", Written.word("every column"))).withName(input);
        List<Line> all = input.isEmpty()
                ? written
                : Stream.concat(Stream.of(named), written.stream()).toList();
        return new Made(fix.page(name, title, all), fix.call(name));
    }

    private void parameter(String column) {
        String plain =
                column.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "_").replaceAll("^_+|_+$", "");
        String base = plain.matches("[a-z].*") ? plain : "column_" + plain;
        boolean word = Lexer.KEYWORDS.contains(base);
        String name = word ? base + "_" : base;
        for (int n = 2; parameters.containsValue(name); n++) {
            name = base + "_" + n;
        }
        parameters.put(column.toLowerCase(Locale.ROOT), name);
    }

    private Line rewritten(Line line, Function<String, Optional<String>> names) {
        Map<String, Written> blanks = new LinkedHashMap<>();
        line.blanks().forEach((blank, written) -> {
            String kind = operations
                    .apply(line.call())
                    .flatMap(o -> o.blank(blank))
                    .map(b -> b.kind().name())
                    .orElse("");
            blanks.put(blank, written(kind, written, names));
        });
        return new Line(line.call(), blanks, line.name(), line.strict(), line.rest());
    }

    private static Written written(String kind, Written written, Function<String, Optional<String>> names) {
        return switch (kind) {
            case "column", "columns", "order", "new name", "new names" -> named(written, names);
            case "pairs", "types" ->
                written instanceof Written.Fields(var fields) ? keys(fields, v -> v, names) : written;
            case "condition", "expression" -> expression(written, names);
            case "new columns", "measures" ->
                written instanceof Written.Fields(var fields)
                        ? keys(fields, v -> expression(v, names), names)
                        : written;
            default -> argument(written, names);
        };
    }

    private static Written named(Written written, Function<String, Optional<String>> names) {
        return switch (written) {
            case Written.Word(String text) ->
                names.apply(text).<Written>map(p -> Written.word("{" + p + "}")).orElse(written);
            case Written.Items(var items) ->
                new Written.Items(items.stream().map(i -> named(i, names)).toList());
            case Written.Fields(var fields) -> keys(fields, v -> v, names);
        };
    }

    private static Written keys(
            Map<String, Written> fields, Function<Written, Written> values, Function<String, Optional<String>> names) {
        Map<String, Written> all = new LinkedHashMap<>();
        fields.forEach((k, v) -> all.put(names.apply(k).map(p -> "{" + p + "}").orElse(k), values.apply(v)));
        return new Written.Fields(all);
    }

    /// The argument of a fix: `{column: x}` and `{sql: …}` speak of columns.
    private static Written argument(Written written, Function<String, Optional<String>> names) {
        if (!(written instanceof Written.Fields(var fields)) || fields.size() != 1) {
            return written;
        }
        Map<String, Written> all = new LinkedHashMap<>();
        fields.forEach((k, v) ->
                all.put(k, k.equals("sql") ? expression(v, names) : k.equals("column") ? named(v, names) : v));
        return new Written.Fields(all);
    }

    /// An expression in which parameters stand for columns, by their names without braces.
    private static Written expression(Written written, Function<String, Optional<String>> names) {
        if (!(written instanceof Written.Word(String text))) {
            return written;
        }
        StringBuilder out = new StringBuilder();
        List<Lexer.Token> tokens = Lexer.tokens(text);
        int at = 0;
        for (int i = 0; i < tokens.size(); i++) {
            Lexer.Token token = tokens.get(i);
            boolean quoted = token.kind() == Lexer.Kind.QUOTED_NAME;
            boolean called = i + 1 < tokens.size() && tokens.get(i + 1).in(text).equals("(");
            if (quoted || token.kind() == Lexer.Kind.NAME && !called) {
                String name = token.in(text);
                Optional<String> parameter = names.apply(
                        quoted ? name.substring(1, name.length() - 1).replace("\"\"", "\"") : name);
                if (parameter.isPresent()) {
                    out.append(text, at, token.span().start()).append(parameter.get());
                    at = token.span().end();
                }
            }
        }
        return Written.word(out.append(text, at, text.length()).toString());
    }

    private Line call(String name) {
        Map<String, Written> arguments = new LinkedHashMap<>();
        columns.forEach((lower, column) -> arguments.put(parameters.get(lower), Written.word(column)));
        made.forEach((lower, column) -> arguments.put(parameters.get(lower), Written.word(column)));
        return new Line(name, arguments);
    }

    private String page(String name, String title, List<Line> lines) {
        StringBuilder page = new StringBuilder("---\nformat: 2\nfix: " + name + "\nkind: table\nversion: 0.1.0\n");
        page.append("reads: ").append(YamlText.scalar(name.replace('_', ' '))).append('\n');
        if (!parameters.isEmpty()) {
            page.append("parameters:\n");
        }
        columns.forEach((lower, column) -> page.append("  ")
                .append(parameters.get(lower))
                .append(": {type: column, about: ")
                .append(YamlText.scalar("What " + column + " was in the job."))
                .append("}\n"));
        made.forEach((lower, column) -> page.append("  ")
                .append(parameters.get(lower))
                .append(": {type: new name, default: ")
                .append(YamlText.scalar(column))
                .append(", about: A column that it makes.}\n"));
        page.append("---\n# ").append(title).append("\n\nSays in one sentence what it is for.\n\n```yaml\n");
        lines.forEach(l -> page.append("- ")
                .append(String.join("\n  ", LineFields.write(l, "", "  ")))
                .append('\n'));
        return page.append("```\n\n## Cases\n").toString();
    }
}
