package fixshelf.language.tree;

import fixshelf.problem.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/// Splits expression text into tokens. Never fails: what is no token is `OTHER`, what is not closed `UNCLOSED`.
public final class Lexer {
    /// Words that belong to the expression language and cannot be the name of a parameter.
    public static final Set<String> KEYWORDS = Set.of(
            "set",
            "return",
            "case",
            "when",
            "then",
            "else",
            "end",
            "and",
            "or",
            "not",
            "in",
            "like",
            "escape",
            "is",
            "null",
            "true",
            "false",
            "between",
            "distinct",
            "from",
            "for",
            "both",
            "leading",
            "trailing",
            "cast",
            "as",
            "exists",
            "select");

    /// What a token is.
    public enum Kind {
        KEYWORD,
        NAME,
        QUOTED_NAME,
        TEXT,
        NUMBER,
        SIGN,
        COMMENT,
        UNCLOSED,
        OTHER
    }

    /// A token; `span` counts from the start of the text given to the lexer.
    public record Token(Kind kind, Span span) {
        public String in(String text) {
            return text.substring(span.start(), span.end());
        }
    }

    private final String text;
    private final List<Token> tokens = new ArrayList<>();
    private int at;

    private Lexer(String text) {
        this.text = text;
    }

    /// All tokens in order; white space between them is left out.
    public static List<Token> tokens(String text) {
        Lexer lexer = new Lexer(text);
        while (lexer.at < text.length()) {
            lexer.next();
        }
        return lexer.tokens;
    }

    private void next() {
        char c = text.charAt(at);
        int start = at;
        if (Character.isWhitespace(c)) {
            at++;
        } else if (text.startsWith("--", at)) {
            int end = text.indexOf('\n', at);
            add(Kind.COMMENT, start, end < 0 ? text.length() : end);
        } else if (text.startsWith("/*", at)) {
            int end = text.indexOf("*/", at + 2);
            add(end < 0 ? Kind.UNCLOSED : Kind.COMMENT, start, end < 0 ? text.length() : end + 2);
        } else if (c == '\'') {
            quoted(start, at, '\'', Kind.TEXT);
        } else if ((c == 'U' || c == 'u') && text.startsWith("&'", at + 1)) {
            quoted(start, at + 2, '\'', Kind.TEXT);
        } else if (c == '"') {
            quoted(start, at, '"', Kind.QUOTED_NAME);
        } else if (Character.isLetter(text.codePointAt(at)) || c == '_') {
            word(start);
        } else if (Character.isDigit(c)) {
            number(start);
        } else {
            sign(start, c);
        }
    }

    private void quoted(int start, int open, char quote, Kind kind) {
        int i = open + 1;
        while (i < text.length()) {
            if (text.charAt(i) == quote) {
                if (i + 1 < text.length() && text.charAt(i + 1) == quote) {
                    i++;
                } else {
                    add(kind, start, i + 1);
                    return;
                }
            }
            i++;
        }
        add(Kind.UNCLOSED, start, text.length());
    }

    private void word(int start) {
        int i = start;
        while (i < text.length() && Names.isPart(text.codePointAt(i))) {
            i += Character.charCount(text.codePointAt(i));
        }
        boolean keyword = KEYWORDS.contains(text.substring(start, i).toLowerCase(Locale.ROOT));
        add(keyword ? Kind.KEYWORD : Kind.NAME, start, i);
    }

    private void number(int start) {
        int i = start;
        while (i < text.length() && (Character.isLetterOrDigit(text.charAt(i)) || text.charAt(i) == '.')) {
            i++;
        }
        add(Kind.NUMBER, start, i);
    }

    private void sign(int start, char c) {
        for (String two : List.of("<=", ">=", "<>", "||", "=>", "!=")) {
            if (text.startsWith(two, start)) {
                add(Kind.SIGN, start, start + 2);
                return;
            }
        }
        add("()+-*/,;=<>.:?%".indexOf(c) >= 0 ? Kind.SIGN : Kind.OTHER, start, start + 1);
    }

    private void add(Kind kind, int start, int end) {
        tokens.add(new Token(kind, new Span(start, end)));
        at = end;
    }
}
