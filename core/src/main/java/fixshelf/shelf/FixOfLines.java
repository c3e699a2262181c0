package fixshelf.shelf;

import fixshelf.language.tree.Lexer;
import fixshelf.plan.ColumnKinds;
import fixshelf.plan.Line;
import fixshelf.plan.Operation;
import fixshelf.plan.Step;
import fixshelf.plan.Written;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/// Lines of a job as a table fix of their own: the columns that they name become its parameters, and so do the new
/// columns that they leave behind.
public final class FixOfLines {
    private static final Set<String> BEGINNING = Set.of("rows", "rows_of_days");

    private final Function<String, Optional<Operation>> operations;
    /// The columns that lines use, with the parameters that stand for them; two may differ only in capitals.
    private final Map<String, String> columns = new LinkedHashMap<>();
    /// Those that they make and leave behind, also where one that is gone by then was called so.
    private final Map<String, String> made = new LinkedHashMap<>();

    /// The names of lines that are in the fix.
    private final Set<String> lineNames = new HashSet<>();

    private FixOfLines(Function<String, Optional<Operation>> operations) {
        this.operations = operations;
    }

    /// The text of the page, and the line that calls it in place of the lines.
    public record Made(String page, Line call) {}

    /// Why lines can be no fix: the columns of rows that one of them begins with would be its own, and not leave it.
    public static Optional<String> refusal(List<Step> steps) {
        return steps.stream()
                .filter(s -> s.begins() || BEGINNING.contains(s.line().call()))
                .findFirst()
                .map(s -> "Line " + s.number()
                        + " begins with other rows, whose columns would be the fix's own and not leave it."
                        + " Choose a line above it.");
    }

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
        fix.lineNames.add(input);
        lines.forEach(l -> fix.lineNames.add(l.name()));
        fix.lineNames.remove("");
        // Once to see what is named, once to write it.
        fix.rewritten(lines, before, after, seen(fix.columns), seen(fix.made));
        fix.columns.replaceAll((column, _) -> fix.parameter(column));
        fix.made.replaceAll((column, _) -> fix.parameter(column));
        List<Line> written = fix.rewritten(
                lines,
                before,
                after,
                c -> Objects.requireNonNull(fix.columns.get(c)),
                c -> Objects.requireNonNull(fix.made.get(c)));
        // Lines that come back to the table that goes in need a name for it.
        Line named = new Line("choose", Map.of("columns", Written.word("every column"))).withName(input);
        List<Line> all = input.isEmpty()
                ? written
                : Stream.concat(Stream.of(named), written.stream()).toList();
        return new Made(fix.page(name, title, all), fix.call(name));
    }

    private static UnaryOperator<String> seen(Map<String, String> names) {
        return name -> {
            names.put(name, "");
            return name;
        };
    }

    /// The lines with parameters in place of names.
    ///
    /// @param columns gives the parameter of a column that was there before the lines
    /// @param made gives that of one that they make
    private List<Line> rewritten(
            List<Line> lines,
            List<String> before,
            List<String> after,
            UnaryOperator<String> columns,
            UnaryOperator<String> made) {
        Set<String> madeSoFar = new LinkedHashSet<>();
        // Such as a column of another table.
        List<String> ofNoLine = after.stream().filter(c -> !before.contains(c)).toList();
        List<Line> all = new ArrayList<>();
        for (Line line : lines) {
            Set<String> fresh = new LinkedHashSet<>();
            // With a prefix, other names are written than those that come out.
            List<String> left = line.blanks().containsKey("prefix") ? List.of() : after;
            all.add(rewritten(
                    line,
                    used -> meant(used, madeSoFar)
                            .map(made)
                            .or(() -> meant(used, before).map(columns))
                            .or(() -> meant(used, ofNoLine).map(made)),
                    used -> meant(used, left).map(c -> {
                        fresh.add(c);
                        return made.apply(c);
                    })));
            madeSoFar.addAll(fresh);
        }
        return all;
    }

    /// The column that a name means: the exact one, else one that differs in capitals only.
    private static Optional<String> meant(String used, Collection<String> columns) {
        return Stream.<Predicate<String>>of(used::equals, used::equalsIgnoreCase)
                .flatMap(same -> columns.stream().filter(same))
                .findFirst();
    }

    private String parameter(String column) {
        String plain =
                column.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "_").replaceAll("^_+|_+$", "");
        String base = plain.matches("[a-z].*") ? plain : "column_" + plain;
        boolean word = Lexer.KEYWORDS.contains(base);
        String name = word ? base + "_" : base;
        for (int n = 2; columns.containsValue(name) || made.containsValue(name); n++) {
            name = base + "_" + n;
        }
        return name;
    }

    /// @param names the parameter of a column
    /// @param created that of a new one
    private Line rewritten(
            Line line, Function<String, Optional<String>> names, Function<String, Optional<String>> created) {
        Map<String, Written> blanks = new LinkedHashMap<>();
        // A column that is named by nobody, but usually so, leaves under a parameter too.
        operations.apply(line.call()).stream()
                .flatMap(o -> o.blanks().stream())
                .filter(b ->
                        b.kind().equals(ColumnKinds.NEW_NAME) && !line.blanks().containsKey(b.name()))
                .forEach(b -> b.fallback()
                        .filter(w -> w instanceof Written.Word(String text) && !text.isEmpty())
                        .map(w -> named(w, created))
                        .filter(w -> !w.equals(b.fallback().get()))
                        .ifPresent(w -> blanks.put(b.name(), w)));
        boolean ownTable = line.blanks().values().stream()
                .anyMatch(w -> w instanceof Written.Word(String text) && lineNames.contains(text));
        line.blanks().forEach((blank, written) -> {
            String kind = operations
                    .apply(line.call())
                    .flatMap(o -> o.blank(blank))
                    .map(b -> b.kind().name())
                    .orElse("");
            // Columns of a table that is a line of ours are called as ours are.
            boolean both = kind.equals("renames") || kind.equals("pairs") && ownTable;
            Written one = written(kind, written, names, created);
            Function<String, Optional<String>> values = kind.equals("renames") ? created : names;
            blanks.put(
                    blank,
                    both && one instanceof Written.Fields(var f)
                            ? keys(f, v -> named(v, values), _ -> Optional.empty())
                            : one);
        });
        return new Line(line.call(), blanks, line.name(), line.strict(), line.rest());
    }

    private static Written written(
            String kind,
            Written written,
            Function<String, Optional<String>> names,
            Function<String, Optional<String>> created) {
        return switch (kind) {
            case "columns" -> written instanceof Written.Fields(var rule) ? ofRule(rule, names) : named(written, names);
            case "column", "order" -> named(written, names);
            case "new name", "new names" -> named(written, created);
            case "pairs", "renames", "types", "mappings" ->
                written instanceof Written.Fields(var fields) ? keys(fields, v -> v, names) : written;
            case "condition", "expression" -> expression(written, names);
            case "new columns", "measures" ->
                written instanceof Written.Fields(var fields)
                        ? keys(fields, v -> expression(v, names), created)
                        : written;
            default -> argument(written, names);
        };
    }

    /// Columns that are chosen by what they are; those that are left out have names.
    private static Written ofRule(Map<String, Written> rule, Function<String, Optional<String>> names) {
        Map<String, Written> all = new LinkedHashMap<>(rule);
        all.computeIfPresent("all_but", (_, out) -> named(out, names));
        return new Written.Fields(all);
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
        columns.forEach((column, parameter) -> arguments.put(parameter, Written.word(column)));
        made.forEach((column, parameter) -> arguments.put(parameter, Written.word(column)));
        return new Line(name, arguments);
    }

    private String page(String name, String title, List<Line> lines) {
        StringBuilder page = new StringBuilder("---\nformat: 2\nfix: " + name + "\nkind: table\nversion: 0.1.0\n");
        page.append("reads: ").append(YamlText.scalar(name.replace('_', ' '))).append('\n');
        if (!columns.isEmpty() || !made.isEmpty()) {
            page.append("parameters:\n");
        }
        columns.forEach((column, parameter) -> page.append("  ")
                .append(parameter)
                .append(": {type: column, about: ")
                .append(YamlText.scalar("What " + column + " was in the job."))
                .append("}\n"));
        made.forEach((column, parameter) -> page.append("  ")
                .append(parameter)
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
