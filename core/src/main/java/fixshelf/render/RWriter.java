package fixshelf.render;

import fixshelf.language.Definition;
import fixshelf.language.Emulations;
import fixshelf.language.Expr;
import fixshelf.language.Inliner;
import fixshelf.language.LikePattern;
import fixshelf.language.PatternHelp;
import fixshelf.language.Regex;
import fixshelf.language.RegexParser;
import fixshelf.language.Replacement;
import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.problem.ProblemException;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
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
        return plain ? name : "`" + name.replace("\\", "\\\\").replace("`", "\\`") + "`";
    }

    /// How a fix is called.
    static String function(Definition fix) {
        return name(RLanguage.TAKEN.free(fix.name()));
    }

    static ProblemException cannot(String why, String todo) {
        return new ProblemException(Problem.about(Code.CANNOT_SAY, "R, dplyr", "R, dplyr cannot say it: " + why, todo));
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
            case "trim" -> trimmed(a, true, true);
            case "ltrim" -> trimmed(a, true, false);
            case "rtrim" -> trimmed(a, false, true);
            case "remove_prefix" -> withoutEnd(a, true);
            case "remove_suffix" -> withoutEnd(a, false);
            case "replace" -> replace(a);
            case "upper" -> R.call("toupper", text(a.get(0)));
            case "lower" -> R.call("tolower", text(a.get(0)));
            case "length" -> R.call("as.numeric", "str_length(" + text(a.get(0)) + ")");
            case "substring" -> substring(a);
            case "left" -> R.call("substring", text(a.get(0)), "1", bounded(a.get(1), 0));
            case "right" ->
                R.call(
                        "substring",
                        text(a.get(0)),
                        "str_length(" + text(a.get(0)) + ") - " + bounded(a.get(1), 0) + " + 1");
            case "position" -> position(a);
            case "starts_with" -> R.call("startsWith", text(a.get(0)), one(a.get(1)));
            case "ends_with" -> R.call("endsWith", text(a.get(0)), one(a.get(1)));
            case "contains" -> contains(a);
            case "repeat" -> R.call("strrep", text(a.get(0)), bounded(a.get(1), 0));
            case "||", "concat" ->
                R.call("str_c", a.stream().map(e -> text(typed(e, Type.TEXT))).toArray(String[]::new));
            case "concat_ws" ->
                R.call(
                        ".join_present",
                        a.stream().map(e -> text(typed(e, Type.TEXT))).toArray(String[]::new));
            case "regexp_replace" -> regexpReplace(a);
            case "regexp_like" -> R.call("str_detect", text(a.get(0)), pattern(a.get(1), RegexWriter.icu()));
            case "regexp_extract" -> regexpExtract(a);
            case "coalesce" ->
                R.call("coalesce", a.stream().map(e -> as(call.type(), e)).toArray(String[]::new));
            case "nullif" -> nullif(a, call.type());
            case "IS NULL" -> R.call("is.na", text(a.get(0)));
            case "IS DISTINCT FROM" -> distinct(a);
            case "IN" -> in(a);
            case "LIKE" -> like(a);
            case "AND" -> R.infix(condition(a.get(0)), "&", condition(a.get(1)), R.AND);
            case "OR" -> R.infix(condition(a.get(0)), "|", condition(a.get(1)), R.OR);
            case "NOT" -> new R("!" + condition(a.get(0)).at(R.UNARY), R.NOT);
            case "=" -> R.infix(r(a.get(0)), "==", r(a.get(1)), R.COMPARE);
            case "<>" -> R.infix(r(a.get(0)), "!=", r(a.get(1)), R.COMPARE);
            case "<", "<=", ">", ">=" ->
                R.infix(ordered(a.get(0), a), call.function().name(), ordered(a.get(1), a), R.COMPARE);
            case "reverse" -> R.call("stringi::stri_reverse", text(a.get(0)));
            case "initcap" ->
                R.call(
                        "gsub",
                        RLiterals.quoted("([\\p{L}\\p{Nd}])([\\p{L}\\p{Nd}\\p{M}]*)"),
                        RLiterals.quoted("\\U\\1\\L\\2"),
                        text(a.get(0)),
                        "perl = TRUE");
            case "translate" -> translate(a);
            case "normalize" -> R.call("stringi::stri_trans_nfc", text(a.get(0)));
            case "split_part" -> part(a);
            case "replace_each" -> replaceEach(a);
            default -> more(call);
        };
    }

    private R more(Expr.Call call) {
        return switch (call.function().group()) {
            case DATE -> new RDates(this).write(call);
            case NUMBER, CONVERSION -> new RNumbers(this).write(call);
            case LIST -> throw notYetKnown();
            case TEXT, PATTERN, NULL, COMPARISON ->
                throw cannot("It has no form for " + call.function().name() + ".", "Use another function.");
        };
    }

    /// An argument that is one value, not a vector.
    private String one(Expr expr) {
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

    private String lengthOf(Expr expr) {
        return expr instanceof Expr.Literal(String text, Type _)
                ? String.valueOf(text.codePointCount(0, text.length()))
                : "str_length(" + one(expr) + ")";
    }

    private R condition(Expr expr) {
        return r(typed(expr, Type.BOOLEAN));
    }

    private R ordered(Expr expr, List<Expr> both) {
        boolean text = both.stream().anyMatch(e -> e.type() instanceof Type.Text);
        return text ? R.call(".code_points", text(typed(expr, Type.TEXT))) : r(expr);
    }

    private R trimmed(List<Expr> a, boolean start, boolean end) {
        String set = "[ ]";
        if (a.size() > 1) {
            if (!(a.get(1) instanceof Expr.Literal(String characters, Type _))) {
                String inside = "str_replace_all(" + one(a.get(1)) + ", \"([\\\\W_])\", \"\\\\\\\\\\\\1\")";
                String atStart = "\"^[\", " + inside + ", \"]+";
                String atEnd = inside + ", \"]+\\\\z\"";
                String body = "str_c("
                        + (start && end ? atStart + "|[\", " + atEnd : start ? atStart + "\"" : "\"[\", " + atEnd)
                        + ")";
                // A set without any sign would be no pattern.
                return new R(
                        "(if (" + one(a.get(1)) + " == \"\") " + text(a.get(0)) + " else str_remove_all("
                                + text(a.get(0)) + ", " + body + "))",
                        R.ATOM);
            }
            if (characters.isEmpty()) {
                return r(a.get(0));
            }
            List<Regex.Range> ranges = characters
                    .codePoints()
                    .distinct()
                    .mapToObj(c -> new Regex.Range(c, c))
                    .toList();
            set = RegexWriter.icu().write(new Regex.CharacterSet(ranges, false));
        } else {
            set = " ";
        }
        String pattern = (start ? "^" + set + "+" : "") + (start && end ? "|" : "") + (end ? set + "+\\z" : "");
        return R.call("str_remove_all", text(a.get(0)), RLiterals.quoted(pattern));
    }

    /// Without the text at its start or its end. A text that is known is a pattern there, which names its subject once.
    private R withoutEnd(List<Expr> a, boolean start) {
        String subject = text(a.get(0));
        if (a.get(1) instanceof Expr.Literal(String known, Type _)) {
            if (known.isEmpty()) {
                return r(a.get(0));
            }
            String pattern = RegexWriter.icu()
                    .write(RegexParser.parse(PatternHelp.escaped(known)).get());
            return R.call("str_remove", subject, RLiterals.quoted(start ? "^" + pattern : pattern + "\\z"));
        }
        String end = one(a.get(1));
        String rest = start
                ? "startsWith(" + subject + ", " + end + ") ~ substring(" + subject + ", " + lengthOf(a.get(1))
                        + " + 1)"
                : "endsWith(" + subject + ", " + end + ") ~ substr(" + subject + ", 1, str_length(" + subject + ") - "
                        + lengthOf(a.get(1)) + ")";
        return caseWhen(List.of(rest, "TRUE ~ " + subject));
    }

    private R replace(List<Expr> a) {
        if (a.get(1) instanceof Expr.Literal(String search, Type _) && search.isEmpty()) {
            return r(a.get(0));
        }
        return a.get(1) instanceof Expr.Literal
                ? R.call("str_replace_all", text(a.get(0)), "fixed(" + one(a.get(1)) + ")", one(a.get(2)))
                : R.call(".replace_each", text(a.get(0)), one(a.get(1)), one(a.get(2)));
    }

    /// One after the other in a loop: R reads no more than some 50 calls inside one another.
    private R replaceEach(List<Expr> a) {
        if (!(a.get(1) instanceof Expr.Literal(Map<?, ?> pairs, Type _))) {
            throw notYetKnown();
        }
        List<String> from = new ArrayList<>();
        List<String> to = new ArrayList<>();
        for (Map.Entry<?, ?> pair : pairs.entrySet()) {
            if (pair.getValue() == null) {
                return R.atom(RLiterals.literal(null, Type.TEXT));
            }
            if (!"".equals(pair.getKey())) {
                from.add(RLiterals.literal(pair.getKey(), Type.TEXT));
                to.add(RLiterals.literal(pair.getValue(), Type.TEXT));
            }
        }
        return from.isEmpty()
                ? r(a.get(0))
                : R.call(
                        ".replace_each",
                        text(a.get(0)),
                        "c(" + String.join(", ", from) + ")",
                        "c(" + String.join(", ", to) + ")");
    }

    private String bounded(Expr number, long least) {
        if (number instanceof Expr.Literal(Long n, Type _)) {
            return String.valueOf(Math.max(least, Math.min(n, 1_000_000_000)));
        }
        return "pmin(pmax(" + text(number) + ", " + least + "), 1e9)";
    }

    private R substring(List<Expr> a) {
        String from = bounded(a.get(1), 1);
        if (a.size() < 3) {
            return R.call("substring", text(a.get(0)), from);
        }
        if (a.get(1) instanceof Expr.Literal(Long start, Type _) && a.get(2) instanceof Expr.Literal(Long n, Type _)) {
            long first = Math.max(-1_000_000_000, Math.min(start, 1_000_000_000));
            long last = first - 1 + Math.max(0, Math.min(n, 1_000_000_000));
            return R.call("substring", text(a.get(0)), from, String.valueOf(Math.min(last, 1_000_000_000)));
        }
        String last = bounded(a.get(1), -1_000_000_000) + " - 1 + " + bounded(a.get(2), 0);
        return R.call("substring", text(a.get(0)), from, "pmin(" + last + ", 1e9)");
    }

    private R position(List<Expr> a) {
        if (!(a.get(1) instanceof Expr.Literal)) {
            String empty = "(if (" + one(a.get(1)) + " == \"\") 1 else str_locate(" + text(a.get(0)) + ", fixed("
                    + one(a.get(1)) + "))[, 1])";
            return caseWhen(List.of("!is.na(" + text(a.get(0)) + ") ~ coalesce(as.numeric(" + empty + "), 0)"));
        }
        if (a.get(1) instanceof Expr.Literal(String search, Type _) && search.isEmpty()) {
            return caseWhen(List.of("!is.na(" + text(a.get(0)) + ") ~ 1"));
        }
        String place = "str_locate(" + text(a.get(0)) + ", fixed(" + one(a.get(1)) + "))[, 1]";
        return caseWhen(List.of("!is.na(" + text(a.get(0)) + ") ~ coalesce(as.numeric(" + place + "), 0)"));
    }

    private R contains(List<Expr> a) {
        if (a.get(1) instanceof Expr.Literal(String search, Type _) && search.isEmpty()) {
            return caseWhen(List.of("!is.na(" + text(a.get(0)) + ") ~ TRUE"));
        }
        R found = R.call("str_detect", text(a.get(0)), "fixed(" + one(a.get(1)) + ")");
        return a.get(1) instanceof Expr.Literal
                ? found
                : new R(
                        "(if (" + one(a.get(1)) + " == \"\") !is.na(" + text(a.get(0)) + ") | NA else " + found.text()
                                + ")",
                        R.ATOM);
    }

    private static Regex regex(Expr argument) {
        if (argument instanceof Expr.Literal(String text, Type _)) {
            return RegexParser.parse(text).get();
        }
        throw cannot(
                "the pattern comes through a parameter, and every language writes patterns in its own way.",
                "Copy it as an expression, with the pattern filled in.");
    }

    private static String pattern(Expr argument, RegexWriter writer) {
        return RLiterals.quoted(writer.write(regex(argument)));
    }

    private R regexpReplace(List<Expr> a) {
        if (!(a.get(2) instanceof Expr.Literal(String text, Type _))) {
            throw cannot(
                    "the replacement comes through a parameter, and every language writes groups in its own way.",
                    "Copy it as an expression, with the replacement filled in.");
        }
        List<Replacement> parts = Replacement.parse(text);
        String pattern = pattern(a.get(1), RegexWriter.icu());
        if (parts.isEmpty()) {
            return R.call("str_remove_all", text(a.get(0)), pattern);
        }
        StringBuilder written = new StringBuilder();
        boolean afterGroup = false;
        for (Replacement part : parts) {
            switch (part) {
                // A digit after a group would be read as a part of its number.
                case Replacement.Plain(String plain) ->
                    written.append(
                            afterGroup && Character.isDigit(plain.charAt(0))
                                    ? String.format("\\u%04x", (int) plain.charAt(0)) + icu(plain.substring(1))
                                    : icu(plain));
                case Replacement.GroupOf(int number) -> written.append('$').append(number);
            }
            afterGroup = part instanceof Replacement.GroupOf;
        }
        boolean plain = parts.stream().noneMatch(Replacement.GroupOf.class::isInstance);
        String usual = parts.stream()
                .map(part -> switch (part) {
                    case Replacement.Plain(String words) -> words.replace("\\", "\\\\");
                    case Replacement.GroupOf(int number) -> "\\" + number;
                })
                .collect(Collectors.joining());
        return plain || written.indexOf("\\u00") < 0
                ? R.call("str_replace_all", text(a.get(0)), pattern, RLiterals.quoted(usual))
                : R.call(
                        "stringi::stri_replace_all_regex",
                        text(a.get(0)),
                        pattern,
                        RLiterals.quoted(written.toString()));
    }

    /// Text as a replacement of ICU has it.
    private static String icu(String plain) {
        return plain.replace("\\", "\\\\").replace("$", "\\$");
    }

    private R regexpExtract(List<Expr> a) {
        String pattern = pattern(a.get(1), RegexWriter.icu());
        long group = a.size() > 2 && a.get(2) instanceof Expr.Literal(Long g, Type _) ? g : 0;
        if (group == 0) {
            return R.call("str_extract", text(a.get(0)), pattern);
        }
        String found = "str_detect(" + text(a.get(0)) + ", " + pattern + ")";
        String part = "str_match(" + text(a.get(0)) + ", " + pattern + ")[, " + (group + 1) + "]";
        return caseWhen(List.of(found + " ~ coalesce(" + part + ", \"\")"));
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

    private R like(List<Expr> a) {
        LikePattern pattern = LikePattern.of(a)
                .orElseThrow(() -> cannot(
                        "the pattern of LIKE comes through a parameter.",
                        "Copy it as an expression, with the pattern filled in."));
        String regex = pattern.write("(?s:.*)", "(?s:.)", c -> RegexWriter.icu()
                .write(new Regex.CharacterSet(List.of(new Regex.Range(c, c)), false)));
        return R.call("str_detect", text(a.get(0)), RLiterals.quoted("^" + regex + "\\z"));
    }

    private R translate(List<Expr> a) {
        if (!(a.get(1) instanceof Expr.Literal(String from, Type _)
                && a.get(2) instanceof Expr.Literal(String to, Type _))) {
            throw cannot("the characters come through a parameter.", "Copy it with the characters filled in.");
        }
        int[] all = from.codePoints().distinct().toArray();
        StringBuilder found = new StringBuilder();
        StringBuilder written = new StringBuilder();
        List<Regex.Range> dropped = new ArrayList<>();
        for (int c : all) {
            int at = from.codePointCount(0, from.indexOf(Character.toString(c)));
            if (at < to.codePointCount(0, to.length())) {
                found.appendCodePoint(c);
                written.appendCodePoint(to.codePointAt(to.offsetByCodePoints(0, at)));
            } else {
                dropped.add(new Regex.Range(c, c));
            }
        }
        String rest = text(a.get(0));
        if (!dropped.isEmpty()) {
            String set = RegexWriter.icu().write(new Regex.CharacterSet(dropped, false));
            rest = "str_remove_all(" + rest + ", " + RLiterals.quoted(set) + ")";
        }
        return found.isEmpty()
                ? R.atom(rest)
                : R.call(
                        "stringi::stri_trans_char",
                        rest,
                        RLiterals.quoted(found.toString()),
                        RLiterals.quoted(written.toString()));
    }

    private R part(List<Expr> a) {
        if (!(a.get(2) instanceof Expr.Literal(Long number, Type _))) {
            throw cannot("the number of the part comes through a parameter.", "Copy it with the number filled in.");
        }
        String place = number > 0 ? "p[" + number + "]" : number == -1 ? "p[length(p)]" : "rev(p)[" + -number + "]";
        String parts = "str_split(" + text(a.get(0)) + ", fixed(" + one(a.get(1)) + "))";
        return R.call("vapply", parts, "function(p) " + place, "\"\"");
    }
}
