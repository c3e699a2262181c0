package fixshelf.problem;

import static java.util.Objects.requireNonNull;

import java.util.Comparator;
import java.util.List;

/// One thing that is wrong: `what` and why, `where`, and `todo`, the next step for the user.
public record Problem(Code code, Severity severity, Where where, String what, String todo) {

    /// How much it matters: an error stops what was asked for, a warning does not.
    public enum Severity {
        ERROR,
        WARNING
    }

    /// A span in a named text.
    public record Where(SourceText source, Span span) {
        public static Where nowhere(String name) {
            return new Where(new SourceText(name, ""), Span.NONE);
        }

        public SourceText.Position position() {
            return source.position(span.start());
        }
    }

    public Problem {
        requireNonNull(code);
        requireNonNull(where);
        if (what.isBlank()) {
            throw new IllegalArgumentException("a problem without words: " + code);
        }
    }

    /// The same where a page leads to it; one of a place outside stays one of that place.
    public Problem placed(Where there) {
        return code.isElsewhere() ? this : new Problem(code, severity, there, what, todo);
    }

    /// The words that its place spans, a quoted name without its quotes; empty where it has no text.
    public String words() {
        String text = where.source().text();
        int end = Math.min(where.span().end(), text.length());
        String words = text.substring(Math.min(where.span().start(), end), end);
        // In YAML's own quotes the quotes of a name stand behind backslashes.
        words = words.endsWith("\\\"") ? words.replace("\\\"", "\"") : words;
        boolean quoted = words.length() > 2 && words.startsWith("\"") && words.endsWith("\"");
        return quoted ? words.substring(1, words.length() - 1).replace("\"\"", "\"") : words;
    }

    public static Problem error(Code code, Where where, String what, String todo) {
        return new Problem(code, Severity.ERROR, where, what, todo);
    }

    /// An error that has no place in a text, only the name of what it is about, such as a file.
    public static Problem about(Code code, String name, String what, String todo) {
        return error(code, Where.nowhere(name), what, todo);
    }

    public static Problem warning(Code code, Where where, String what, String todo) {
        return new Problem(code, Severity.WARNING, where, what, todo);
    }

    public boolean isError() {
        return severity == Severity.ERROR;
    }

    /// What and what to do in one line, for places that already show where.
    public String sentence() {
        return todo.isEmpty() ? what : what + " " + todo;
    }

    /// The same problems, those of each page together and in its order; pages as they are met first.
    public static List<Problem> inOrder(List<Problem> problems) {
        List<String> pages =
                problems.stream().map(p -> p.where().source().name()).distinct().toList();
        return problems.stream()
                .sorted(Comparator.<Problem>comparingInt(
                                p -> pages.indexOf(p.where().source().name()))
                        .thenComparingInt(p -> p.where().span().start()))
                .toList();
    }
}
