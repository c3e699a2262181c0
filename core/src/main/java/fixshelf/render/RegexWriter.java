package fixshelf.render;

import fixshelf.language.pattern.Regex;
import fixshelf.language.pattern.Regex.CharacterSet;
import fixshelf.language.pattern.Regex.Range;
import fixshelf.type.Visible;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;

/// Writes a pattern in the flavour of an engine.
///
/// @param end how the very end of the text is written
/// @param codePoint how a character that cannot be seen is written, up to U+FFFF and above
/// @param categories whether `\p{L}` is known
/// @param mergesCases whether two letters that differ in case are taken for one letter of any case
/// @param captures which group is captured: a number, or one of the constants
public record RegexWriter(
        String end, String codePoint, String farCodePoint, boolean categories, boolean mergesCases, int captures) {
    static final int ALL = -1;
    public static final int NONE = 0;

    public static RegexWriter re2() {
        return new RegexWriter("$", "\\x{%04X}", "\\x{%X}", true, true, ALL);
    }

    public static RegexWriter posix() {
        return new RegexWriter("$", "\\u%04X", "\\U%08X", false, false, ALL);
    }

    public static RegexWriter pcre() {
        return new RegexWriter("\\z", "\\x{%04X}", "\\x{%X}", true, false, ALL);
    }

    public static RegexWriter java() {
        return new RegexWriter("\\z", "\\u%04X", "\\x{%X}", true, false, ALL);
    }

    public static RegexWriter icu() {
        return new RegexWriter("\\z", "\\u%04X", "\\U%08X", true, false, ALL);
    }

    public static RegexWriter python() {
        return new RegexWriter("\\Z", "\\u%04x", "\\U%08x", false, false, ALL);
    }

    /// The same flavour, but only the group of that number is captured.
    public RegexWriter capturing(int group) {
        return new RegexWriter(end, codePoint, farCodePoint, categories, mergesCases, group);
    }

    public String write(Regex regex) {
        return switch (regex) {
            case Regex.Sequence(List<Regex> parts) ->
                parts.stream().map(this::part).collect(Collectors.joining());
            case Regex.Alternatives(List<Regex> choices) ->
                choices.stream().map(this::write).collect(Collectors.joining("|"));
            case Regex.Group(Regex part, int number) -> group(part, number);
            case Regex.Repeat(Regex part, int least, int most, boolean lazy) ->
                atom(part) + repeat(least, most) + (lazy ? "?" : "");
            case CharacterSet set -> set(set);
            case Regex.Start() -> "^";
            case Regex.End() -> end;
            case Regex.Boundary(boolean inside) -> boundary(inside);
        };
    }

    /// Engines disagree on the letters of a word, so all but RE2, which looks neither back nor ahead and knows ASCII
    /// only, are told them.
    private String boundary(boolean inside) {
        if (mergesCases) {
            return inside ? "\\B" : "\\b";
        }
        String word = "[0-9A-Z_a-z]";
        String same = inside ? "=" : "!";
        String other = inside ? "!" : "=";
        return "(?:(?<=" + word + ")(?" + same + word + ")|(?<!" + word + ")(?" + other + word + "))";
    }

    private String part(Regex regex) {
        return regex instanceof Regex.Alternatives ? "(?:" + write(regex) + ")" : write(regex);
    }

    private String atom(Regex regex) {
        boolean single = regex instanceof CharacterSet || regex instanceof Regex.Group;
        return single ? write(regex) : "(?:" + write(regex) + ")";
    }

    private String group(Regex part, int number) {
        boolean captured = number > 0 && (captures == ALL || captures == number);
        return (captured ? "(" : "(?:") + write(part) + ")";
    }

    private static String repeat(int least, int most) {
        if (most < 0) {
            return least == 0 ? "*" : least == 1 ? "+" : "{" + least + ",}";
        }
        if (least == 0 && most == 1) {
            return "?";
        }
        return least == most ? "{" + least + "}" : "{" + least + "," + most + "}";
    }

    /// In RE2 `[kK]` beside another set also finds the Kelvin sign, and `[sS]` the long s: it takes the two letters
    /// for one of any case. As alternatives they are only themselves.
    private boolean isTakenForAnyCase(CharacterSet set) {
        if (!mergesCases || set.negated() || !set.classes().isEmpty()) {
            return false;
        }
        int[] points = set.own().stream()
                .flatMapToInt(r -> java.util.stream.IntStream.rangeClosed(r.first(), r.last()))
                .limit(3)
                .sorted()
                .toArray();
        return points.length == 2 && (points[0] == 'K' && points[1] == 'k' || points[0] == 'S' && points[1] == 's');
    }

    private String set(CharacterSet set) {
        if (isTakenForAnyCase(set)) {
            return set.own().getFirst().first() == 'K' || set.own().getFirst().first() == 'k' ? "(?:K|k)" : "(?:S|s)";
        }
        if (set.isSingle()) {
            return character(set.own().getFirst().first(), "\\.[]{}()*+?^$|");
        }
        boolean named = categories && !set.classes().isEmpty();
        String classes = named
                ? set.classes().stream().map(c -> "\\p{" + c.label() + "}").collect(Collectors.joining())
                : "";
        String inside =
                (named ? set.own() : set.ranges()).stream().map(this::range).collect(Collectors.joining()) + classes;
        boolean bare = named && set.own().isEmpty() && set.classes().size() == 1;
        if (bare) {
            return set.negated() ? "\\P" + classes.substring(2) : classes;
        }
        return (set.negated() ? "[^" : "[") + inside + "]";
    }

    private String range(Range range) {
        String first = character(range.first(), "\\[]^-");
        return range.first() == range.last() ? first : first + "-" + character(range.last(), "\\[]^-");
    }

    private String character(int c, String special) {
        return switch (c) {
            case '\t' -> "\\t";
            case '\n' -> "\\n";
            case '\r' -> "\\r";
            case '\f' -> "\\f";
            case ' ' -> " ";
            default -> {
                if (c < 128 && special.indexOf(c) >= 0) {
                    yield "\\" + (char) c;
                }
                boolean visible = !Visible.isInvisible(c);
                yield visible
                        ? Character.toString(c)
                        : String.format(Locale.ROOT, c > 0xFFFF ? farCodePoint : codePoint, c);
            }
        };
    }
}
