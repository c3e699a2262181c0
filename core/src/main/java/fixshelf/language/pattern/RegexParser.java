package fixshelf.language.pattern;

import fixshelf.language.pattern.Regex.CharacterSet;
import fixshelf.language.pattern.Regex.Range;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Problem.Where;
import fixshelf.problem.ProblemException;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/// Reads a pattern of the portable subset; what is outside of it is refused by name.
public final class RegexParser {
    private static final int MOST_REPEATS = 255;
    private static final int DEEPEST = 50;

    /// Before a pattern that passes over small and capital letters.
    public static final String ANY_CASE = "(?i)";

    private final String pattern;
    private int at;
    private int groups;
    private int depth;

    private RegexParser(String pattern) {
        this.pattern = pattern;
    }

    public static Outcome<Regex> parse(String pattern) {
        RegexParser parser = new RegexParser(pattern);
        try {
            boolean anyCase = pattern.startsWith(ANY_CASE);
            parser.at = anyCase ? ANY_CASE.length() : 0;
            Regex regex = anyCase ? Regexes.anyCase(parser.alternatives()) : parser.alternatives();
            if (parser.at < pattern.length()) {
                throw parser.refuse("This `)` closes nothing.", "Write \\) for the sign itself.");
            }
            return Outcome.of(regex);
        } catch (ProblemException e) {
            return Outcome.failed(e.problem());
        }
    }

    private Regex alternatives() {
        if (++depth > DEEPEST) {
            throw refuse("The pattern is too deeply nested.", "Split it.");
        }
        List<Regex> choices = new ArrayList<>();
        choices.add(sequence());
        while (take('|')) {
            choices.add(sequence());
        }
        depth--;
        return choices.size() == 1 ? choices.getFirst() : new Regex.Alternatives(choices);
    }

    private Regex sequence() {
        List<Regex> parts = new ArrayList<>();
        while (at < pattern.length() && peek() != '|' && peek() != ')') {
            parts.add(repeated(atom()));
        }
        return parts.size() == 1 ? parts.getFirst() : new Regex.Sequence(parts);
    }

    private Regex repeated(Regex part) {
        if (at >= pattern.length()) {
            return part;
        }
        int[] bounds =
                switch (peek()) {
                    case '*' -> bounds(0, -1);
                    case '+' -> bounds(1, -1);
                    case '?' -> bounds(0, 1);
                    case '{' -> counted();
                    default -> new int[0];
                };
        if (bounds.length == 0) {
            return part;
        }
        if (part instanceof Regex.Start || part instanceof Regex.End || part instanceof Regex.Boundary) {
            throw refuse("An anchor cannot be repeated.", "Remove the repeat.");
        }
        boolean lazy = take('?');
        if (at < pattern.length() && "*+?{".indexOf(peek()) >= 0) {
            throw refuse("A repeat of a repeat is not the same everywhere.", "Put the inner one in (?: ).");
        }
        return new Regex.Repeat(part, bounds[0], bounds[1], lazy);
    }

    private int[] bounds(int least, int most) {
        at++;
        return new int[] {least, most};
    }

    private int[] counted() {
        int end = pattern.indexOf('}', at);
        String inside = end < 0 ? "" : pattern.substring(at + 1, end);
        if (!inside.matches("[0-9]{1,4}(,[0-9]{0,4})?")) {
            throw refuse("A `{` begins a count such as {2} or {2,5}.", "Write \\{ for the sign itself.");
        }
        at = end + 1;
        String[] parts = inside.split(",", -1);
        int least = Integer.parseInt(parts[0]);
        int most = parts.length == 1 ? least : parts[1].isEmpty() ? -1 : Integer.parseInt(parts[1]);
        if (Math.max(least, most) > MOST_REPEATS || most >= 0 && most < least) {
            throw refuse("A count is at most 255, the larger number last.", "Change the count.");
        }
        return new int[] {least, most};
    }

    private Regex atom() {
        int c = pattern.codePointAt(at);
        at += Character.charCount(c);
        return switch (c) {
            case '^' -> new Regex.Start();
            case '$' -> new Regex.End();
            case '.' -> new CharacterSet(List.of(new Range('\n', '\n')), true);
            case '(' -> group();
            case '[' -> set();
            case '\\' -> escaped();
            case '*', '+', '?', '{' ->
                throw refuse("There is nothing to repeat here.", "Write \\" + (char) c + " for the sign itself.");
            default -> CharacterSet.of(c);
        };
    }

    private Regex group() {
        int number = 0;
        if (take('?')) {
            if (!take(':')) {
                throw refuse(
                        "Look-around, flags and named groups are not known in every language.",
                        "Only ( ) and (?: ) are portable, and (?i) at the very start.");
            }
        } else {
            number = ++groups;
        }
        Regex part = alternatives();
        if (!take(')')) {
            throw refuse("This group is not closed.", "Add ), or write \\( for the sign itself.");
        }
        return new Regex.Group(part, number);
    }

    private Regex escaped() {
        if (at >= pattern.length()) {
            throw refuse("The pattern ends with a backslash.", "Write \\\\ for the sign itself.");
        }
        int c = pattern.codePointAt(at);
        at += Character.charCount(c);
        return switch (c) {
            case 'd' -> digits(false);
            case 'D' -> digits(true);
            case 'w' -> word(false);
            case 'W' -> word(true);
            case 's' -> space(false);
            case 'S' -> space(true);
            case 't' -> CharacterSet.of('\t');
            case 'n' -> CharacterSet.of('\n');
            case 'r' -> CharacterSet.of('\r');
            case 'f' -> CharacterSet.of('\f');
            case 'u' -> byNumber();
            case 'b' -> new Regex.Boundary(false);
            case 'B' -> new Regex.Boundary(true);
            case 'p' -> category(false);
            case 'P' -> category(true);
            default -> literalEscape(c);
        };
    }

    private CharacterSet category(boolean negated) {
        int end = at < pattern.length() && peek() == '{' ? pattern.indexOf('}', at) : -1;
        Optional<UnicodeClass> found = end < 0 ? Optional.empty() : UnicodeClass.find(pattern.substring(at + 1, end));
        if (found.isEmpty()) {
            throw refuse(
                    "There is no such category.",
                    "Write one of "
                            + Arrays.stream(UnicodeClass.values())
                                    .map(c -> "\\p{" + c.label() + "}")
                                    .collect(Collectors.joining(" "))
                            + ".");
        }
        at = end + 1;
        return new CharacterSet(List.of(), List.of(found.get()), negated);
    }

    private CharacterSet byNumber() {
        boolean hex =
                at + 4 <= pattern.length() && pattern.substring(at, at + 4).matches("[0-9A-Fa-f]{4}");
        if (!hex) {
            throw refuse("`\\u` takes four hexadecimal digits.", "Write \\u00A0 for the no-break space, say.");
        }
        at += 4;
        return CharacterSet.of(Integer.parseInt(pattern.substring(at - 4, at), 16));
    }

    private CharacterSet literalEscape(int c) {
        if (c < 128 && Character.isLetterOrDigit(c)) {
            throw refuse(
                    "`\\" + Character.toString(c) + "` is not the same in every language.",
                    "Portable are \\d \\w \\s \\b \\p{L} \\t \\n \\r \\u00A0 and a backslash before a sign.");
        }
        return CharacterSet.of(c);
    }

    private static CharacterSet digits(boolean negated) {
        return new CharacterSet(List.of(new Range('0', '9')), negated);
    }

    private static CharacterSet word(boolean negated) {
        return new CharacterSet(Regex.Boundary.WORD, negated);
    }

    private static CharacterSet space(boolean negated) {
        return new CharacterSet(List.of(new Range('\t', '\r'), new Range(' ', ' ')), negated);
    }

    private CharacterSet set() {
        boolean negated = take('^');
        List<Range> ranges = new ArrayList<>();
        List<UnicodeClass> classes = new ArrayList<>();
        while (at < pattern.length() && (peek() != ']' || ranges.isEmpty() && classes.isEmpty())) {
            CharacterSet member = member();
            ranges.addAll(member.own());
            classes.addAll(member.classes());
        }
        if (!take(']')) {
            throw refuse("This set is not closed.", "Add ], or write \\[ for the sign itself.");
        }
        return new CharacterSet(ranges, classes, negated);
    }

    private CharacterSet member() {
        if (pattern.startsWith("[:", at)) {
            throw refuse("Named classes are not the same everywhere.", "Write the ranges, such as a-z, or \\p{L}.");
        }
        CharacterSet first = setCharacter();
        if (!first.isSingle()) {
            if (first.negated()) {
                throw refuse("\\D, \\W, \\S and \\P have no place in a set.", "Write the ranges.");
            }
            return first;
        }
        int low = first.own().getFirst().first();
        boolean range = at + 1 < pattern.length() && peek() == '-' && pattern.charAt(at + 1) != ']';
        if (!range) {
            return first;
        }
        at++;
        CharacterSet last = setCharacter();
        int high = last.isSingle() ? last.own().getFirst().first() : -1;
        if (high < low) {
            throw refuse("A range goes from a lower to a higher character.", "Change the range.");
        }
        return new CharacterSet(List.of(new Range(low, high)), false);
    }

    private CharacterSet setCharacter() {
        int c = pattern.codePointAt(at);
        at += Character.charCount(c);
        if (c != '\\') {
            return CharacterSet.of(c);
        }
        if (escaped() instanceof CharacterSet set) {
            return set;
        }
        throw refuse("\\b and \\B are places, no characters, and have no place in a set.", "Take it out of [ ].");
    }

    private char peek() {
        return pattern.charAt(at);
    }

    private boolean take(char c) {
        if (at < pattern.length() && peek() == c) {
            at++;
            return true;
        }
        return false;
    }

    private ProblemException refuse(String what, String todo) {
        Span span = new Span(Math.max(0, Math.min(at, pattern.length()) - 1), Math.min(at, pattern.length()));
        String place = " (at character " + (pattern.codePointCount(0, span.start()) + 1) + " of the pattern)";
        return new ProblemException(Problem.error(
                Code.BAD_PATTERN, new Where(new SourceText("pattern", pattern), span), what + place, todo));
    }
}
