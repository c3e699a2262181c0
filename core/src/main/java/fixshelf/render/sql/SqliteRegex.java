package fixshelf.render.sql;

import fixshelf.language.pattern.Automaton;
import fixshelf.language.pattern.Automaton.Move;
import fixshelf.language.pattern.Automaton.State;
import fixshelf.language.pattern.Regex.Range;
import fixshelf.language.pattern.Replacement;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.stream.Collectors;

/// Regular expressions in plain SQLite: a recursive query walks through the text, character by character, and keeps
/// the state of an [Automaton].
///
/// Its columns: `s` the text, `i` the place of the next character, `q` the state (-1 for none), `b` where the match
/// began, `e` one past where it ended, 0 for no match, `o` what was written so far.
final class SqliteRegex {
    static final int MOST_STATES = 60;
    private static final String WORD = "'[0-9A-Z_a-z]'";

    private final Automaton automaton;
    private final Function<String, String> quote;

    SqliteRegex(Automaton automaton, Function<String, String> quote) {
        this.automaton = automaton;
        this.quote = quote;
    }

    /// Whether the pattern matches anywhere; the automaton is one [Automaton#ofSearch].
    String found(Sql text) {
        List<String> ends = ends();
        String accepting = numbers(State::accepts);
        String go = "i <= length(s)" + (accepting.isEmpty() ? "" : " AND q NOT IN (" + accepting + ")");
        String found = String.join(" OR ", ends);
        return "(WITH RECURSIVE walk(s, i, q) AS (\n"
                + "    SELECT " + text.text() + ", 1, " + automaton.atStart() + "\n"
                + "    UNION ALL\n"
                + "    SELECT s, i + 1, " + Sql.indent(next(), 6) + "\n"
                + "    FROM walk WHERE " + go + ")\n"
                + "  SELECT max(" + (found.isEmpty() ? "0" : found) + ") FROM walk WHERE s IS NOT NULL)";
    }

    /// The first match, or null; the automaton is one [Automaton#ofMatch].
    String extract(Sql text) {
        return "(WITH RECURSIVE walk(s, i, q, b, e) AS (\n"
                + "    SELECT " + text.text() + ", 1, " + automaton.atStart() + ", 1, 0\n"
                + "    UNION ALL\n"
                + "    SELECT s, " + at() + ", " + state() + ",\n"
                + "      CASE WHEN q = -1 THEN b + 1 ELSE b END, " + end() + "\n"
                + "    FROM walk WHERE b <= length(s) + 1 AND NOT (q = -1 AND e > 0))\n"
                + "  SELECT substr(s, b, e - b) FROM walk WHERE q = -1 AND e > 0)";
    }

    /// The text with every match replaced; the pattern never matches the empty text.
    String replace(Sql text, List<Replacement> replacement) {
        String written = replacement.stream()
                .map(part -> switch (part) {
                    case Replacement.Plain(String plain) -> quote.apply(plain);
                    case Replacement.GroupOf _ -> "substr(s, b, e - b)";
                })
                .collect(Collectors.joining(" || "));
        String withMatch = written.isEmpty() ? "o" : "o || " + written;
        return "(WITH RECURSIVE walk(s, i, q, b, e, o) AS (\n"
                + "    SELECT " + text.text() + ", 1, " + automaton.atStart() + ", 1, 0, ''\n"
                + "    UNION ALL\n"
                + "    SELECT s, CASE WHEN q = -1 AND e > 0 THEN e WHEN q = -1 THEN b + 1 ELSE i + 1 END,\n"
                + "      " + Sql.indent(state(), 6) + ",\n"
                + "      CASE WHEN q = -1 AND e > 0 THEN e WHEN q = -1 THEN b + 1 ELSE b END,\n"
                + "      " + end() + ",\n"
                + "      CASE WHEN q > -1 THEN o WHEN e > 0 THEN " + withMatch + " ELSE o || substr(s, b, 1) END\n"
                + "    FROM walk WHERE b <= length(s))\n"
                + "  SELECT o FROM walk WHERE b > length(s))";
    }

    private static String at() {
        return "CASE WHEN q = -1 THEN b + 1 ELSE i + 1 END";
    }

    private String state() {
        String later = automaton.later() == automaton.laterInWord()
                ? "" + automaton.later()
                : "CASE WHEN substr(s, CASE WHEN e > 0 THEN e - 1 ELSE b END, 1) GLOB " + WORD + " THEN "
                        + automaton.laterInWord() + " ELSE " + automaton.later() + " END";
        return "CASE WHEN q = -1 THEN " + later + " ELSE " + next() + " END";
    }

    private String end() {
        String whens = ends().stream().map(c -> " WHEN " + c + " THEN i").collect(Collectors.joining());
        return "CASE WHEN q = -1 THEN 0" + whens + " ELSE e END";
    }

    /// When a match may end before the character at `i`, each a condition.
    private List<String> ends() {
        List<String> ends = new ArrayList<>();
        String always = numbers(State::accepts);
        if (!always.isEmpty()) {
            ends.add("q IN (" + always + ")");
        }
        ended(ends, "i > length(s)", s -> s.acceptsAtEnd() && !s.accepts());
        ended(ends, "substr(s, i, 1) GLOB " + WORD, s -> s.acceptsBeforeWord() && !s.accepts());
        ended(ends, "i <= length(s) AND NOT substr(s, i, 1) GLOB " + WORD, s -> s.acceptsBeforeOther() && !s.accepts());
        return ends;
    }

    private void ended(List<String> ends, String where, java.util.function.Predicate<State> wanted) {
        String numbers = numbers(wanted);
        if (!numbers.isEmpty()) {
            ends.add(where + " AND q IN (" + numbers + ")");
        }
    }

    private String numbers(java.util.function.Predicate<State> wanted) {
        List<String> numbers = new ArrayList<>();
        for (int i = 0; i < automaton.states().size(); i++) {
            if (wanted.test(automaton.states().get(i))) {
                numbers.add(String.valueOf(i));
            }
        }
        return String.join(", ", numbers);
    }

    /// The state after the character at `i`; past the end there is none.
    private String next() {
        StringBuilder out = new StringBuilder("CASE q");
        List<State> states = automaton.states();
        for (int i = 0; i < states.size(); i++) {
            if (states.get(i).moves().isEmpty()) {
                continue;
            }
            out.append("\n  WHEN ").append(i).append(" THEN CASE");
            for (Move move : states.get(i).moves()) {
                String condition = move.ranges().stream().map(this::within).collect(Collectors.joining(" OR "));
                out.append(" WHEN ").append(condition).append(" THEN ").append(move.target());
            }
            out.append(" ELSE -1 END");
        }
        return out.length() == 6 ? "-1" : out.append("\n  ELSE -1 END").toString();
    }

    private String within(Range range) {
        String character = "substr(s, i, 1)";
        if (range.first() == range.last()) {
            return character + " = " + quote.apply(Character.toString(range.first()));
        }
        boolean all = range.first() <= 1 && range.last() == 0x10FFFF;
        if (all) {
            return "i <= length(s)";
        }
        if (range.last() == 0x10FFFF) {
            return character + " >= " + bound(range.first());
        }
        return character + " BETWEEN " + bound(range.first()) + " AND " + bound(range.last());
    }

    /// A lone surrogate is no text; the character before or after it bounds the same range.
    private String bound(int codePoint) {
        boolean surrogate = codePoint >= 0xD800 && codePoint <= 0xDFFF;
        return surrogate
                ? "char(" + (codePoint < 0xDC00 ? 0xD7FF : 0xE000) + ")"
                : quote.apply(Character.toString(codePoint));
    }
}
