package fixshelf.shelf;

import fixshelf.language.catalogue.Constants;
import fixshelf.language.checking.WrittenConstants;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Lexer;
import fixshelf.language.tree.Names;
import fixshelf.language.tree.Parameter;
import fixshelf.operations.Operations;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Problem.Where;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import fixshelf.shelf.FixPage.Case;
import fixshelf.type.Amounts;
import fixshelf.type.Type;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/// Reads the page of a value fix.
public final class FixPages {
    private static final Set<String> FIELDS =
            Set.of("fix", "kind", "version", "reads", "parameters", "returns", "tags", "promises", "makes_missing");
    private static final Set<String> PARAMETER_FIELDS = Set.of("type", "default", "about");

    private final SourceText source;
    private final List<Problem> problems = new ArrayList<>();

    private FixPages(SourceText source) {
        this.source = source;
    }

    /// Reads a page; it never fails, problems are in the page.
    public static FixPage read(Path file, SourceText source) {
        return new FixPages(source).page(file);
    }

    private FixPage page(Path file) {
        PageText text = PageText.of(source);
        Optional<Yaml.Fields> front = text.front().flatMap(span -> Yaml.read(source, span, problems));
        if (text.front().isEmpty()) {
            report(
                    Code.BROKEN_YAML,
                    new Span(0, 0),
                    "The page does not begin with its fields.",
                    "Begin it with a line of --- and close the fields with another.");
        }
        String fallback = file.getFileName().toString().replaceFirst("\\.fix\\.md$", "");
        String name = front.map(f -> f.required("fix", "Add `fix: name`."))
                .filter(n -> !n.isEmpty())
                .orElse(fallback);
        front.ifPresent(f -> wantName(f, name));
        front.ifPresent(f -> f.allowPage(FIELDS));
        front.ifPresent(f -> wantKind(f));
        List<Parameter> parameters = front.map(this::parameters).orElse(List.of());
        front.ifPresent(f -> TableFixPages.wantParameters(
                f, parameters.stream().map(Parameter::name).toList()));
        Type returns = front.map(this::returns).orElse(Type.TEXT);
        wantOneBody(text);
        List<Case> cases =
                text.table("Cases").map(t -> cases(t, parameters, returns)).orElse(List.of());
        return new FixPage(
                file,
                source,
                name,
                front.map(f -> f.text("version", "0.1.0")).orElse("0.1.0"),
                front.map(f -> f.text("reads", "")).orElse(""),
                parameters,
                returns,
                front.map(f -> f.texts("tags")).orElse(List.of()),
                front.map(this::promises).orElse(List.of()),
                text.title().orElse(name.replace('_', ' ')),
                text.prose(),
                text.bodies().stream().findFirst(),
                cases,
                List.copyOf(problems),
                text.table("Cases").map(t -> t.span().start()).orElse(Integer.MAX_VALUE),
                front.filter(f -> f.has("makes_missing")).map(f -> f.spanOfValue("makes_missing")),
                front.map(f -> f.text("makes_missing", "")).orElse(""));
    }

    private void wantName(Yaml.Fields front, String name) {
        Optional<String> wrong = Names.problemWith(name);
        if (wrong.isPresent()) {
            report(Code.BAD_FIELD, front.spanOfValue("fix"), wrong.get(), "Write squeeze_spaces, say.");
        } else if (fixshelf.language.catalogue.Functions.find(name).isPresent()) {
            clash(front, name + " is a function of the catalogue already.");
        } else if (Operations.find(name).isPresent()) {
            clash(front, name + " is an operation on tables already, and lines would call that.");
        } else if (Lexer.KEYWORDS.contains(name.toLowerCase(Locale.ROOT))) {
            clash(front, name + " is a word of the language already.");
        }
    }

    private void clash(Yaml.Fields front, String what) {
        report(Code.NAME_CLASH, front.spanOfValue("fix"), what, "Choose another name.");
    }

    private void wantKind(Yaml.Fields front) {
        String kind = front.text("kind", "value");
        if (!kind.equals("value")) {
            report(
                    Code.BAD_FIELD,
                    front.spanOfValue("kind"),
                    "There is no kind of fix that is called " + kind + ".",
                    "Known: value, table, loader.");
        }
    }

    private Type returns(Yaml.Fields front) {
        Optional<Type> type = Type.parse(front.text("returns", "text"));
        if (type.isEmpty()) {
            report(Code.WRONG_TYPE, front.spanOfValue("returns"), "There is no such type.", KNOWN_TYPES);
        }
        return type.orElse(Type.TEXT);
    }

    private static final String KNOWN_TYPES =
            "Known: text, integer, decimal, decimal(p,s), number, boolean, date, timestamp,"
                    + " list of text, mapping of text to text.";

    /// What a line says to every fix; the first parameter is the column itself, and may be called so.
    private static final Set<String> TAKEN = Set.of("columns", "into", "if_absent");

    private List<Parameter> parameters(Yaml.Fields front) {
        Optional<Yaml.Fields> all = front.fields("parameters");
        if (all.isEmpty() || all.get().names().isEmpty()) {
            report(
                    Code.BAD_FIELD,
                    front.span(),
                    "A value fix has at least one parameter.",
                    "Add `parameters:` with `text: {type: text}`.");
            return List.of();
        }
        List<Parameter> parameters = new ArrayList<>();
        Set<String> seen = new HashSet<>();
        for (String name : all.get().names()) {
            all.get().fields(name).ifPresent(f -> parameters.add(parameter(name, f)));
            Span span = all.get().spanOfField(name);
            if (!seen.add(name.toLowerCase(Locale.ROOT))) {
                report(Code.DUPLICATE_NAME, span, "There are two parameters " + name + ".", "Rename one.");
            }
            if (Names.problemWith(name).isPresent()
                    || Lexer.KEYWORDS.contains(name.toLowerCase(Locale.ROOT))
                    || name.equalsIgnoreCase("result")) {
                report(
                        Code.BAD_FIELD,
                        span,
                        name + " cannot be the name of a parameter.",
                        "Use letters, digits and _; not a word of the language.");
            }
            if (parameters.size() > 1 && TAKEN.contains(name)) {
                report(
                        Code.BAD_FIELD,
                        span,
                        name + " says in every line which columns a fix works on.",
                        "Call the parameter otherwise.");
            }
        }
        return parameters;
    }

    private Parameter parameter(String name, Yaml.Fields fields) {
        fields.allow(PARAMETER_FIELDS);
        Optional<Type> type = Type.parse(fields.text("type", "text"));
        if (type.isEmpty()) {
            report(Code.WRONG_TYPE, fields.spanOfValue("type"), "There is no such type.", KNOWN_TYPES);
        }
        Type known = type.orElse(Type.TEXT);
        Optional<Expr.Literal> fallback =
                fields.text("default").flatMap(d -> literal(d, known, fields.spanOfValue("default")));
        return new Parameter(name, known, fallback, fields.text("about", ""), false);
    }

    private Optional<Expr.Literal> literal(String text, Type wanted, Span span) {
        Outcome<Optional<Expr.Literal>> outcome = WrittenConstants.read("value", text);
        Optional<Expr.Literal> value = outcome.value().flatMap(v -> v);
        if (value.isEmpty()) {
            // What a reader of expressions misses helps with texts; of a list it would tell of calls and rows.
            String why = outcome.problems().isEmpty()
                    ? ": it is computed."
                    : wanted.equals(Type.TEXT)
                            ? ": " + outcome.problems().getFirst().sentence()
                            : " of type " + wanted.label() + ".";
            report(Code.BAD_FIELD, span, "This is not a constant" + why, WrittenConstants.example(wanted));
            return Optional.empty();
        }
        if (!Constants.fits(value.get(), wanted)) {
            report(
                    Code.WRONG_TYPE,
                    span,
                    "This is " + value.get().type().label() + ", asked for is " + wanted.label() + ".",
                    "Change the value or the type.");
            return Optional.empty();
        }
        return Optional.of(Constants.converted(value.get(), wanted));
    }

    private List<Promise> promises(Yaml.Fields front) {
        List<Promise> promises = new ArrayList<>();
        for (String written : front.texts("promises")) {
            Optional<Promise> promise = Promise.read(written);
            promise.ifPresent(promises::add);
            if (promise.isEmpty()) {
                report(
                        Code.BAD_FIELD,
                        front.spanOfValue("promises"),
                        "This is no promise: " + written + ".",
                        "Known: " + Promise.known() + ".");
            }
        }
        return promises;
    }

    private void wantOneBody(PageText text) {
        if (text.bodies().isEmpty()) {
            int end = source.text().length();
            report(
                    Code.NO_BODY,
                    new Span(end, end),
                    "The page has no body.",
                    "Add a fenced block: ```sql, the expression, ```.");
        } else if (text.bodies().size() > 1) {
            report(
                    Code.TWO_BODIES,
                    text.bodies().get(1),
                    "The page has two bodies; only one can be meant.",
                    "Remove one, or fence an example as ```text.");
        }
    }

    private List<Case> cases(PageText.Table table, List<Parameter> parameters, Type returns) {
        List<String> heading = table.heading().cells().stream()
                .map(c -> c.text().toLowerCase(Locale.ROOT))
                .toList();
        Map<String, Parameter> byName = new HashMap<>();
        parameters.forEach(p -> byName.put(p.name().toLowerCase(Locale.ROOT), p));
        Set<String> seen = new HashSet<>();
        for (PageText.Cell cell : table.heading().cells()) {
            String name = cell.text().toLowerCase(Locale.ROOT);
            if (!seen.add(name)) {
                report(Code.BAD_CASE, cell.span(), "The column " + cell.text() + " stands twice.", "Remove one.");
            }
            if (!name.equals("result") && !byName.containsKey(name)) {
                report(
                        Code.BAD_CASE,
                        cell.span(),
                        "No parameter is called " + cell.text() + ".",
                        "Columns are the parameters, then result.");
            }
        }
        if (!heading.contains("result")) {
            report(
                    Code.BAD_CASE,
                    table.heading().span(),
                    "The cases have no column result.",
                    "Add it as the last column.");
            return List.of();
        }
        List<Case> cases = new ArrayList<>();
        table.rows().forEach(row -> oneCase(row, heading, byName, returns).ifPresent(cases::add));
        return cases;
    }

    private Optional<Case> oneCase(
            PageText.Row row, List<String> heading, Map<String, Parameter> byName, Type returns) {
        if (row.cells().size() != heading.size()) {
            report(
                    Code.BAD_CASE,
                    row.span(),
                    "This case has " + Amounts.of(row.cells().size(), "cell") + ", the heading has " + heading.size()
                            + ".",
                    "Fill it up with empty cells between | and |; write \\| for a | in a text.");
            return Optional.empty();
        }
        int before = problems.size();
        Map<String, Expr.Literal> arguments = new HashMap<>();
        Expr.Literal expected = Expr.Literal.NULL;
        for (int i = 0; i < heading.size(); i++) {
            PageText.Cell cell = row.cells().get(i);
            boolean isResult = heading.get(i).equals("result");
            Parameter parameter = byName.get(heading.get(i));
            if (cell.text().isEmpty()) {
                wantDefault(cell, isResult, parameter);
                continue;
            }
            Type type = isResult || parameter == null ? returns : parameter.type();
            Optional<Expr.Literal> value = literal(cell.text(), type, cell.span());
            if (isResult) {
                expected = value.orElse(expected);
            } else {
                String name = heading.get(i);
                value.ifPresent(v -> arguments.put(name, v));
            }
        }
        byName.values().stream()
                .filter(p -> !p.isOptional() && !heading.contains(p.name().toLowerCase(Locale.ROOT)))
                .forEach(p -> report(
                        Code.BAD_CASE,
                        row.span(),
                        "The case says nothing about " + p.name() + ".",
                        "Add a column for it."));
        List<String> cells = row.cells().stream().map(PageText.Cell::text).toList();
        return problems.size() == before
                ? Optional.of(new Case(arguments, expected, cells, row.span()))
                : Optional.empty();
    }

    private void wantDefault(PageText.Cell cell, boolean isResult, Parameter parameter) {
        if (isResult) {
            report(Code.BAD_CASE, cell.span(), "The case says no result.", "Write it, NULL for missing, '' for empty.");
        } else if (parameter != null && !parameter.isOptional()) {
            report(
                    Code.BAD_CASE,
                    cell.span(),
                    parameter.name() + " has no default.",
                    "Write a value, NULL for missing, '' for empty.");
        }
    }

    private void report(Code code, Span span, String what, String todo) {
        problems.add(Problem.error(code, new Where(source, span), what, todo));
    }
}
