package fixshelf.render.r;

import fixshelf.language.pattern.LikePattern;
import fixshelf.language.pattern.PatternHelp;
import fixshelf.language.pattern.Regex;
import fixshelf.language.pattern.RegexParser;
import fixshelf.language.pattern.Replacement;
import fixshelf.language.tree.Expr;
import fixshelf.render.RegexWriter;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/// Text as stringr has it, in vectors of characters.
final class RTexts {
    private final RWriter writer;

    RTexts(RWriter writer) {
        this.writer = writer;
    }

    R write(Expr.Call call) {
        List<Expr> a = call.arguments();
        return switch (call.function().name()) {
            case "trim" -> trimmed(a, true, true);
            case "ltrim" -> trimmed(a, true, false);
            case "rtrim" -> trimmed(a, false, true);
            case "remove_prefix" -> withoutEnd(a, true);
            case "remove_suffix" -> withoutEnd(a, false);
            case "replace" -> replace(a);
            case "upper" -> R.call("toupper", writer.text(a.get(0)));
            case "lower" -> R.call("tolower", writer.text(a.get(0)));
            case "length" -> R.call("as.numeric", "str_length(" + writer.text(a.get(0)) + ")");
            case "substring" -> substring(a);
            case "left" -> R.call("substring", writer.text(a.get(0)), "1", bounded(a.get(1), 0));
            case "right" ->
                R.call(
                        "substring",
                        writer.text(a.get(0)),
                        "str_length(" + writer.text(a.get(0)) + ") - " + bounded(a.get(1), 0) + " + 1");
            case "position" -> position(a);
            case "starts_with" -> R.call("startsWith", writer.text(a.get(0)), writer.one(a.get(1)));
            case "ends_with" -> R.call("endsWith", writer.text(a.get(0)), writer.one(a.get(1)));
            case "contains" -> contains(a);
            case "repeat" -> R.call("strrep", writer.text(a.get(0)), bounded(a.get(1), 0));
            case "||", "concat" ->
                R.call(
                        "str_c",
                        a.stream()
                                .map(e -> writer.text(RWriter.typed(e, Type.TEXT)))
                                .toArray(String[]::new));
            case "concat_ws" ->
                R.call(
                        ".join_present",
                        a.stream()
                                .map(e -> writer.text(RWriter.typed(e, Type.TEXT)))
                                .toArray(String[]::new));
            case "regexp_replace" -> regexpReplace(a);
            case "regexp_like" -> R.call("str_detect", writer.text(a.get(0)), pattern(a.get(1), RegexWriter.icu()));
            case "regexp_extract" -> regexpExtract(a);
            case "reverse" -> R.call("stringi::stri_reverse", writer.text(a.get(0)));
            case "initcap" ->
                R.call(
                        "gsub",
                        RLiterals.quoted("([\\p{L}\\p{Nd}])([\\p{L}\\p{Nd}\\p{M}]*)"),
                        RLiterals.quoted("\\U\\1\\L\\2"),
                        writer.text(a.get(0)),
                        "perl = TRUE");
            case "translate" -> translate(a);
            case "normalize" -> R.call("stringi::stri_trans_nfc", writer.text(a.get(0)));
            case "split_part" -> part(a);
            case "sort_parts" -> together(a, "sort(p, method = \"radix\")");
            case "unique_parts" -> together(a, "unique(p)");
            case "replace_each" -> replaceEach(a);
            case "LIKE" -> like(a);
            default -> throw RWriter.noForm(call);
        };
    }

    private String lengthOf(Expr expr) {
        return expr instanceof Expr.Literal(String text, Type _)
                ? String.valueOf(text.codePointCount(0, text.length()))
                : "str_length(" + writer.one(expr) + ")";
    }

    private R trimmed(List<Expr> a, boolean start, boolean end) {
        String set = "[ ]";
        if (a.size() > 1) {
            if (!(a.get(1) instanceof Expr.Literal(String characters, Type _))) {
                String inside = "str_replace_all(" + writer.one(a.get(1)) + ", \"([\\\\W_])\", \"\\\\\\\\\\\\1\")";
                String atStart = "\"^[\", " + inside + ", \"]+";
                String atEnd = inside + ", \"]+\\\\z\"";
                String body = "str_c("
                        + (start && end ? atStart + "|[\", " + atEnd : start ? atStart + "\"" : "\"[\", " + atEnd)
                        + ")";
                // A set without any sign would be no pattern.
                return new R(
                        "(if (" + writer.one(a.get(1)) + " == \"\") " + writer.text(a.get(0)) + " else str_remove_all("
                                + writer.text(a.get(0)) + ", " + body + "))",
                        R.ATOM);
            }
            if (characters.isEmpty()) {
                return writer.r(a.get(0));
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
        return R.call("str_remove_all", writer.text(a.get(0)), RLiterals.quoted(pattern));
    }

    /// Without the text at its start or its end. A text that is known is a pattern there, which names its subject once.
    private R withoutEnd(List<Expr> a, boolean start) {
        String subject = writer.text(a.get(0));
        if (a.get(1) instanceof Expr.Literal(String known, Type _)) {
            if (known.isEmpty()) {
                return writer.r(a.get(0));
            }
            String pattern = RegexWriter.icu()
                    .write(RegexParser.parse(PatternHelp.escaped(known)).get());
            return R.call("str_remove", subject, RLiterals.quoted(start ? "^" + pattern : pattern + "\\z"));
        }
        String end = writer.one(a.get(1));
        String rest = start
                ? "startsWith(" + subject + ", " + end + ") ~ substring(" + subject + ", " + lengthOf(a.get(1))
                        + " + 1)"
                : "endsWith(" + subject + ", " + end + ") ~ substr(" + subject + ", 1, str_length(" + subject + ") - "
                        + lengthOf(a.get(1)) + ")";
        return RWriter.caseWhen(List.of(rest, "TRUE ~ " + subject));
    }

    private R replace(List<Expr> a) {
        if (a.get(1) instanceof Expr.Literal(String search, Type _) && search.isEmpty()) {
            return writer.r(a.get(0));
        }
        return a.get(1) instanceof Expr.Literal
                ? R.call(
                        "str_replace_all",
                        writer.text(a.get(0)),
                        "fixed(" + writer.one(a.get(1)) + ")",
                        writer.one(a.get(2)))
                : R.call(".replace_each", writer.text(a.get(0)), writer.one(a.get(1)), writer.one(a.get(2)));
    }

    /// One after the other in a loop: R reads no more than some 50 calls inside one another.
    private R replaceEach(List<Expr> a) {
        if (!(a.get(1) instanceof Expr.Literal(Map<?, ?> pairs, Type _))) {
            throw RWriter.notYetKnown();
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
                ? writer.r(a.get(0))
                : R.call(
                        ".replace_each",
                        writer.text(a.get(0)),
                        "c(" + String.join(", ", from) + ")",
                        "c(" + String.join(", ", to) + ")");
    }

    private String bounded(Expr number, long least) {
        if (number instanceof Expr.Literal(Long n, Type _)) {
            return String.valueOf(Math.max(least, Math.min(n, 1_000_000_000)));
        }
        return "pmin(pmax(" + writer.text(number) + ", " + least + "), 1e9)";
    }

    private R substring(List<Expr> a) {
        String from = bounded(a.get(1), 1);
        if (a.size() < 3) {
            return R.call("substring", writer.text(a.get(0)), from);
        }
        if (a.get(1) instanceof Expr.Literal(Long start, Type _) && a.get(2) instanceof Expr.Literal(Long n, Type _)) {
            long first = Math.max(-1_000_000_000, Math.min(start, 1_000_000_000));
            long last = first - 1 + Math.max(0, Math.min(n, 1_000_000_000));
            return R.call("substring", writer.text(a.get(0)), from, String.valueOf(Math.min(last, 1_000_000_000)));
        }
        String last = bounded(a.get(1), -1_000_000_000) + " - 1 + " + bounded(a.get(2), 0);
        return R.call("substring", writer.text(a.get(0)), from, "pmin(" + last + ", 1e9)");
    }

    private R position(List<Expr> a) {
        if (!(a.get(1) instanceof Expr.Literal)) {
            String empty = "(if (" + writer.one(a.get(1)) + " == \"\") 1 else str_locate(" + writer.text(a.get(0))
                    + ", fixed(" + writer.one(a.get(1)) + "))[, 1])";
            return RWriter.caseWhen(
                    List.of("!is.na(" + writer.text(a.get(0)) + ") ~ coalesce(as.numeric(" + empty + "), 0)"));
        }
        if (a.get(1) instanceof Expr.Literal(String search, Type _) && search.isEmpty()) {
            return RWriter.caseWhen(List.of("!is.na(" + writer.text(a.get(0)) + ") ~ 1"));
        }
        String place = "str_locate(" + writer.text(a.get(0)) + ", fixed(" + writer.one(a.get(1)) + "))[, 1]";
        return RWriter.caseWhen(
                List.of("!is.na(" + writer.text(a.get(0)) + ") ~ coalesce(as.numeric(" + place + "), 0)"));
    }

    private R contains(List<Expr> a) {
        if (a.get(1) instanceof Expr.Literal(String search, Type _) && search.isEmpty()) {
            return RWriter.caseWhen(List.of("!is.na(" + writer.text(a.get(0)) + ") ~ TRUE"));
        }
        R found = R.call("str_detect", writer.text(a.get(0)), "fixed(" + writer.one(a.get(1)) + ")");
        return a.get(1) instanceof Expr.Literal
                ? found
                : new R(
                        "(if (" + writer.one(a.get(1)) + " == \"\") !is.na(" + writer.text(a.get(0)) + ") | NA else "
                                + found.text() + ")",
                        R.ATOM);
    }

    private static Regex regex(Expr argument) {
        if (argument instanceof Expr.Literal(String text, Type _)) {
            return RegexParser.parse(text).get();
        }
        throw RWriter.cannot(
                "the pattern comes through a parameter, and every language writes patterns in its own way.",
                "Copy it as an expression, with the pattern filled in.");
    }

    private static String pattern(Expr argument, RegexWriter writer) {
        return RLiterals.quoted(writer.write(regex(argument)));
    }

    private R regexpReplace(List<Expr> a) {
        if (!(a.get(2) instanceof Expr.Literal(String text, Type _))) {
            throw RWriter.cannot(
                    "the replacement comes through a parameter, and every language writes groups in its own way.",
                    "Copy it as an expression, with the replacement filled in.");
        }
        List<Replacement> parts = Replacement.parse(text);
        String pattern = pattern(a.get(1), RegexWriter.icu());
        if (parts.isEmpty()) {
            return R.call("str_remove_all", writer.text(a.get(0)), pattern);
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
                ? R.call("str_replace_all", writer.text(a.get(0)), pattern, RLiterals.quoted(usual))
                : R.call(
                        "stringi::stri_replace_all_regex",
                        writer.text(a.get(0)),
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
            return R.call("str_extract", writer.text(a.get(0)), pattern);
        }
        String found = "str_detect(" + writer.text(a.get(0)) + ", " + pattern + ")";
        String part = "str_match(" + writer.text(a.get(0)) + ", " + pattern + ")[, " + (group + 1) + "]";
        return RWriter.caseWhen(List.of(found + " ~ coalesce(" + part + ", \"\")"));
    }

    private R like(List<Expr> a) {
        LikePattern pattern = LikePattern.of(a)
                .orElseThrow(() -> RWriter.cannot(
                        "the pattern of LIKE comes through a parameter.",
                        "Copy it as an expression, with the pattern filled in."));
        String regex = pattern.write("(?s:.*)", "(?s:.)", c -> RegexWriter.icu()
                .write(new Regex.CharacterSet(List.of(new Regex.Range(c, c)), false)));
        return R.call("str_detect", writer.text(a.get(0)), RLiterals.quoted("^" + regex + "\\z"));
    }

    private R translate(List<Expr> a) {
        if (!(a.get(1) instanceof Expr.Literal(String from, Type _)
                && a.get(2) instanceof Expr.Literal(String to, Type _))) {
            throw RWriter.cannot("the characters come through a parameter.", "Copy it with the characters filled in.");
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
        String rest = writer.text(a.get(0));
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

    private R together(List<Expr> a, String changed) {
        String sign = writer.one(a.get(1));
        String parts = "str_split(" + writer.text(a.get(0)) + ", fixed(" + sign + "))";
        String joined = "if (anyNA(p)) NA_character_ else paste(" + changed + ", collapse = " + sign + ")";
        return R.call("vapply", parts, "function(p) " + joined, "\"\"");
    }

    private R part(List<Expr> a) {
        if (!(a.get(2) instanceof Expr.Literal(Long number, Type _))) {
            throw RWriter.cannot(
                    "the number of the part comes through a parameter.", "Copy it with the number filled in.");
        }
        String place = number > 0 ? "p[" + number + "]" : number == -1 ? "p[length(p)]" : "rev(p)[" + -number + "]";
        String parts = "str_split(" + writer.text(a.get(0)) + ", fixed(" + writer.one(a.get(1)) + "))";
        return R.call("vapply", parts, "function(p) " + place, "\"\"");
    }
}
