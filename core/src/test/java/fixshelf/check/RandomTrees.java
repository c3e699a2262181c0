package fixshelf.check;

import fixshelf.language.catalogue.Functions;
import fixshelf.language.checking.ExpressionParser;
import fixshelf.language.checking.Scope;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.FunctionDef.Wants;
import fixshelf.language.tree.Printer;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;

/// Typed expressions put together at random from all functions and operators, each in the place of an operand, an
/// argument, a condition, a branch, a choice of IN. A function that has been used less often is chosen first, so that
/// a few hundred trees have every function in every kind of place.
final class RandomTrees {
    private static final Map<String, List<String>> NAMES = Map.of(
            "text", List.of("s", "t"),
            "integer", List.of("n", "m"),
            "decimal", List.of("d", "e"),
            "boolean", List.of("p", "q"),
            "date", List.of("x", "y"),
            "timestamp", List.of("u", "v"),
            "number", List.of("f", "g"));

    private static final Map<String, List<String>> CONSTANTS = Map.of(
            "text", List.of("''", "' '", "'a'", "'1.5'", "'2024-02-29'", "'a,b,,a'", "NULL"),
            "integer", List.of("0", "1", "-1", "-7", "3000000000", "NULL"),
            "decimal", List.of("0.5", "-0.50", "12.345", "0.00", "-7.5"),
            "boolean", List.of("TRUE", "FALSE", "NULL"),
            "date", List.of("DATE '2024-02-29'", "DATE '1969-12-31'"),
            "timestamp", List.of("TIMESTAMP '2024-02-29 23:59:59'", "TIMESTAMP '1969-12-31 23:59:59.000070'"),
            "number", List.of("1.5e0", "-2e0"));

    private static final List<String> KINDS = List.copyOf(new java.util.TreeSet<>(NAMES.keySet()));

    /// A call of an example: which slots are fixed, and what stands in them.
    private record Template(FunctionDef function, Expr.Call call) {}

    private final Random random;
    private final Map<String, List<Template>> byResult = new HashMap<>();
    /// How often each function stood in each kind of place.
    private final Map<String, Integer> used = new TreeMap<>();

    RandomTrees(long seed) {
        random = new Random(seed);
        for (FunctionDef function : Functions.ALL) {
            for (FunctionDef.Example example : function.examples()) {
                Expr expr = ExpressionParser.parse("e", example.call(), new Scope(Scope.Fixes.NONE))
                        .get();
                if (expr instanceof Expr.Call call && call.function() == function) {
                    String kind = kind(call.type());
                    boolean any = function.result() == FunctionDef.Result.SAME
                            && function.slot(0).wants() == Wants.SAME;
                    for (String result : any ? KINDS : List.of(kind)) {
                        byResult.computeIfAbsent(result, _ -> new ArrayList<>()).add(new Template(function, call));
                    }
                }
            }
        }
    }

    static String kind(Type type) {
        return type instanceof Type.Decimal ? "decimal" : type.label();
    }

    /// How often each function stood as what: `upper as argument` and so on.
    Map<String, Integer> used() {
        return used;
    }

    /// That many different expressions, each the body of a fix over at least one parameter.
    List<Subject> subjects(int count) {
        Map<String, Subject> subjects = new LinkedHashMap<>();
        for (int i = 0; subjects.size() < count && i < 40 * count; i++) {
            Map<String, Integer> before = new HashMap<>(used);
            String text = node(KINDS.get(i % KINDS.size()), 1 + random.nextInt(3), "result");
            boolean right = text.length() < 700 && !subjects.containsKey(text) && Expressions.isRight(text);
            Subject subject = right ? Expressions.subject(text) : null;
            if (subject == null || subject.fix().parameters().isEmpty()) {
                used.clear();
                used.putAll(before);
            } else {
                subjects.put(text, subject);
            }
        }
        return List.copyOf(subjects.values());
    }

    private <T> T one(List<T> of) {
        return of.get(random.nextInt(of.size()));
    }

    private String leaf(String kind) {
        return one(random.nextInt(4) == 0 ? CONSTANTS.get(kind) : NAMES.get(kind));
    }

    private String node(String kind, int depth, String place) {
        if (depth == 0) {
            return leaf(kind);
        }
        if (random.nextInt(9) == 0) {
            used.merge("CASE as " + place, 1, Integer::sum);
            String more = random.nextBoolean()
                    ? ""
                    : " WHEN " + node("boolean", depth - 1, "condition") + " THEN " + leaf(kind);
            String otherwise = random.nextInt(3) == 0 ? "" : " ELSE " + node(kind, depth - 1, "branch");
            return "CASE WHEN " + node("boolean", depth - 1, "condition") + " THEN " + node(kind, depth - 1, "branch")
                    + more + otherwise + " END";
        }
        // Few tries of the least used: else the same few would be taken again and again.
        List<Template> fitting = byResult.getOrDefault(kind, List.of());
        Template template = fitting.isEmpty()
                ? null
                : random.ints(4, 0, fitting.size())
                        .mapToObj(fitting::get)
                        .min(Comparator.comparingInt(
                                t -> used.getOrDefault(t.function().name() + " as " + place, 0)))
                        .orElseThrow();
        if (template == null) {
            return leaf(kind);
        }
        used.merge(template.function().name() + " as " + place, 1, Integer::sum);
        return written(template, kind, depth);
    }

    private String written(Template template, String kind, int depth) {
        FunctionDef function = template.function();
        String same = function.result() == FunctionDef.Result.SAME ? kind : one(KINDS);
        String real = function.slot(0).wants() == Wants.REAL
                ? kind.equals("number") || random.nextInt(4) == 0
                        ? "number"
                        : kind.equals("decimal") ? "decimal" : "integer"
                : "decimal";
        List<String> arguments = new ArrayList<>();
        Scope none = new Scope(Scope.Fixes.NONE);
        boolean mapped =
                template.call().arguments().stream().anyMatch(a -> a.type().isFixed());
        for (int i = 0; i < template.call().arguments().size(); i++) {
            Expr given = template.call().argument(i);
            FunctionDef.Slot slot = function.slot(i);
            if (slot.fixed()) {
                arguments.add(Printer.print(given));
                continue;
            }
            String wanted =
                    switch (slot.wants()) {
                        case TEXT -> "text";
                        case INTEGER -> "integer";
                        case BOOLEAN -> "boolean";
                        case DATE -> "date";
                        case TIMESTAMP -> "timestamp";
                        case NUMERIC -> random.nextInt(3) == 0 ? "integer" : "decimal";
                        case NUMBER -> "number";
                        case REAL -> real.equals("number") ? real : random.nextInt(3) == 0 ? "integer" : real;
                        case ANY -> one(KINDS);
                        case SAME ->
                            mapped
                                    ? kind(given.type())
                                    : same.equals("decimal") && random.nextInt(3) == 0 ? "integer" : same;
                        case LIST, MAPPING -> "text";
                    };
            wanted = KINDS.contains(wanted) ? wanted : "text";
            String inner = node(wanted, depth - 1, function.isOperator() ? "operand" : "argument");
            arguments.add("(" + inner + ")");
        }
        return call(function, arguments);
    }

    private static String call(FunctionDef function, List<String> a) {
        return switch (function.name()) {
            case "NOT" -> "NOT " + a.getFirst();
            case "IS NULL" -> a.getFirst() + " IS NULL";
            case "IN" -> a.getFirst() + " IN (" + String.join(", ", a.subList(1, a.size())) + ")";
            case "LIKE" -> a.get(0) + " LIKE " + a.get(1) + (a.size() > 2 ? " ESCAPE " + a.get(2) : "");
            default ->
                function.isOperator()
                        ? String.join(" " + function.name() + " ", a)
                        : function.name() + "(" + String.join(", ", a) + ")";
        };
    }
}
