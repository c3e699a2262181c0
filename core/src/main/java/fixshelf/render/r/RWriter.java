package fixshelf.render.r;

import fixshelf.language.emulation.Emulations;
import fixshelf.language.emulation.Inliner;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/// Writes expressions as operations on R's vectors, with stringr for text. Whole numbers are R's doubles.
final class RWriter {
    private static final Set<String> TAKEN =
            Set.of(("if else repeat while function for next break TRUE FALSE NULL Inf NaN NA NA_integer_ NA_real_"
                            + " NA_complex_ NA_character_ in c T F")
                    .split(" "));

    private final Set<String> fixed;

    /// A writer for a place where the names in `fixed` are one value each; all others are vectors.
    RWriter(Set<String> fixed) {
        this.fixed = fixed;
    }

    static String name(String name) {
        boolean plain = name.matches("[A-Za-z][A-Za-z0-9_.]*") && !TAKEN.contains(name);
        String escaped = name.replace("\\", "\\\\")
                .replace("`", "\\`")
                .replace("\n", "\\n")
                .replace("\r", "\\r");
        return plain ? name : "`" + escaped + "`";
    }

    /// How a fix is called.
    static String function(Definition fix) {
        return name(RLanguage.TAKEN.free(fix.name()));
    }

    static ProblemException cannot(String why, String todo) {
        return new ProblemException(Problem.about(Code.CANNOT_SAY, "R, dplyr", "R, dplyr cannot say it: " + why, todo));
    }

    /// Why a call has no form of its own: what it is written with is not known yet, or there is none.
    static ProblemException noForm(Expr.Call call) {
        return Emulations.lacksConstant(call)
                ? notYetKnown()
                : cannot("It has no form for " + call.function().name() + ".", "Use another function.");
    }

    static ProblemException notYetKnown() {
        return cannot(
                "a list, a mapping, a layout or a separator comes through a parameter.",
                "Copy it as an expression, with the values filled in.");
    }

    R r(Expr expr) {
        return switch (expr) {
            case Expr.Literal(Object value, Type type) -> {
                String text = RLiterals.literal(value, type);
                yield new R(text, text.startsWith("-") ? R.UNARY : R.ATOM);
            }
            case Expr.Name(String name, Type _) -> R.atom(name(name));
            case Expr.Case choice -> choice(choice);
            case Expr.FixCall(Definition fix, List<Expr> arguments) -> fixCall(fix, arguments);
            case Expr.Call call -> call(call);
        };
    }

    String text(Expr expr) {
        return r(expr).text();
    }

    private R fixCall(Definition fix, List<Expr> arguments) {
        List<String> inside = new ArrayList<>();
        for (int i = 0; i < arguments.size(); i++) {
            var parameter = fix.parameters().get(i);
            boolean usual = parameter.fallback().map(arguments.get(i)::equals).orElse(false);
            if (i == 0 || !usual) {
                inside.add((i == 0 ? "" : name(parameter.name()) + " = ")
                        + text(typed(arguments.get(i), parameter.type())));
            }
        }
        return R.call(function(fix), inside.toArray(String[]::new));
    }

    static Expr typed(Expr expr, Type type) {
        return expr instanceof Expr.Literal(Object value, Type _) && value == null
                ? new Expr.Literal(null, type)
                : expr;
    }

    /// The expression as one of that type: a whole number that becomes an exact one has at most 15 digits.
    private String as(Type type, Expr expr) {
        boolean exact =
                type instanceof Type.Decimal && expr.type() instanceof Type.Int && !(expr instanceof Expr.Literal);
        return exact ? ".exactly(" + text(expr) + ", 0)" : text(typed(expr, type));
    }

    private R choice(Expr.Case choice) {
        List<String> parts = new ArrayList<>();
        for (Expr.Branch branch : choice.branches()) {
            parts.add(r(typed(branch.condition(), Type.BOOLEAN)).at(R.OR) + " ~ " + as(choice.type(), branch.result()));
        }
        boolean nothing = choice.otherwise() instanceof Expr.Literal(Object value, Type _) && value == null;
        if (!nothing || choice.branches().stream().allMatch(b -> b.result() instanceof Expr.Literal)) {
            parts.add("TRUE ~ " + as(choice.type(), choice.otherwise()));
        }
        return caseWhen(parts);
    }

    static R caseWhen(List<String> parts) {
        String line = "case_when(" + String.join(", ", parts) + ")";
        return line.length() <= 90 && line.indexOf('\n') < 0
                ? R.atom(line)
                : R.atom("case_when(\n  "
                        + String.join(
                                ",\n  ",
                                parts.stream().map(p -> p.replace("\n", "\n  ")).toList()) + "\n)");
    }

    private R call(Expr.Call call) {
        if (Inliner.simplified(call) instanceof Expr.Literal known) {
            return r(known);
        }
        boolean own =
                List.of("to_number", "replace_each").contains(call.function().name());
        Optional<Expr> simpler = own ? Optional.empty() : Emulations.of(call);
        if (simpler.isPresent()) {
            return r(simpler.get());
        }
        if (Emulations.lacksLayout(call)) {
            throw notYetKnown();
        }
        List<Expr> a = call.arguments();
        return switch (call.function().name()) {
            case "coalesce" ->
                R.call("coalesce", a.stream().map(e -> as(call.type(), e)).toArray(String[]::new));
            case "nullif" -> nullif(a, call.type());
            case "IS NULL" -> R.call("is.na", text(a.get(0)));
            case "IS DISTINCT FROM" -> distinct(a);
            case "IN" -> in(a);
            case "AND" -> R.infix(condition(a.get(0)), "&", condition(a.get(1)), R.AND);
            case "OR" -> R.infix(condition(a.get(0)), "|", condition(a.get(1)), R.OR);
            case "NOT" -> new R("!" + condition(a.get(0)).at(R.UNARY), R.NOT);
            case "=" -> R.infix(r(a.get(0)), "==", r(a.get(1)), R.COMPARE);
            case "<>" -> R.infix(r(a.get(0)), "!=", r(a.get(1)), R.COMPARE);
            case "<", "<=", ">", ">=" ->
                R.infix(ordered(a.get(0), a), call.function().name(), ordered(a.get(1), a), R.COMPARE);
            default -> more(call);
        };
    }

    private R more(Expr.Call call) {
        return switch (call.function().group()) {
            case DATE -> new RDates(this).write(call);
            case NUMBER, CONVERSION -> new RNumbers(this).write(call);
            case TEXT, PATTERN, LIST, COMPARISON -> new RTexts(this).write(call);
            case NULL -> throw noForm(call);
        };
    }

    /// An argument that is one value, not a vector.
    String one(Expr expr) {
        boolean value = isOne(expr);
        if (!value) {
            throw cannot("an argument must be one value here, not a column.", "Give a constant.");
        }
        return text(typed(expr, Type.TEXT));
    }

    private boolean isOne(Expr expr) {
        return switch (expr) {
            case Expr.Literal _ -> true;
            case Expr.Name(String name, Type _) -> fixed.contains(name);
            case Expr.Call call ->
                List.of("||", "concat").contains(call.function().name())
                        && call.arguments().stream().allMatch(this::isOne);
            case Expr.Case _, Expr.FixCall _ -> false;
        };
    }

    private R condition(Expr expr) {
        return r(typed(expr, Type.BOOLEAN));
    }

    private R ordered(Expr expr, List<Expr> both) {
        boolean text = both.stream().anyMatch(e -> e.type() instanceof Type.Text);
        return text ? R.call(".code_points", text(typed(expr, Type.TEXT))) : r(expr);
    }

    private R nullif(List<Expr> a, Type type) {
        boolean never = a.get(1) instanceof Expr.Literal(Object value, Type _) && value == null;
        if (never) {
            return R.atom(as(type, a.get(0)));
        }
        Expr value = typed(a.get(0), a.get(1).type());
        return caseWhen(List.of(
                R.infix(r(value), "==", r(a.get(1)), R.COMPARE).text() + " ~ "
                        + RLiterals.literal(null, a.get(1).type()),
                "TRUE ~ " + as(type, value)));
    }

    private R distinct(List<Expr> a) {
        Expr left = typed(a.get(0), a.get(1).type());
        Expr right = typed(a.get(1), a.get(0).type());
        return R.call(
                "coalesce",
                R.infix(r(left), "!=", r(right), R.COMPARE).text(),
                "is.na(" + text(left) + ") != is.na(" + text(right) + ")");
    }

    private R in(List<Expr> a) {
        List<Expr> choices = a.stream()
                .skip(1)
                .filter(e -> !(e instanceof Expr.Literal(Object v, Type _) && v == null))
                .toList();
        String known = "!is.na(" + text(a.get(0)) + ")";
        if (choices.stream().allMatch(e -> e instanceof Expr.Literal)) {
            String list = choices.stream().map(this::text).collect(Collectors.joining(", ", "c(", ")"));
            return caseWhen(List.of(known + " ~ " + r(a.get(0)).at(R.IN) + " %in% " + list));
        }
        String any = choices.stream()
                .map(c -> "coalesce("
                        + R.infix(r(a.get(0)), "==", r(c), R.COMPARE).text() + ", FALSE)")
                .collect(Collectors.joining(" | "));
        return caseWhen(List.of(known + " ~ " + any));
    }
}
