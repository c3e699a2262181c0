package fixshelf.language.checking;

import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Lexer;
import fixshelf.language.tree.Lexer.Kind;
import fixshelf.language.tree.Lexer.Token;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.Problem.Where;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.apache.calcite.avatica.util.Casing;
import org.apache.calcite.avatica.util.Quoting;
import org.apache.calcite.sql.SqlNode;
import org.apache.calcite.sql.parser.SqlParseException;
import org.apache.calcite.sql.parser.SqlParser;
import org.apache.calcite.sql.parser.SqlParserPos;
import org.apache.calcite.sql.parser.babel.SqlBabelParserImpl;

/// Reads one SQL expression out of a larger text with Calcite's parser.
///
/// The grammar gives some words a syntax of their own (`trim`, `position`, `date`). Before it is parsed, such a word
/// is put in quotes where it is plainly a call with commas, or a name in scope, so that `trim(a, '-')` and a column
/// called `date` can be written. Positions are mapped back to the text as typed.
public final class ExpressionParser {
    private static final SqlParser.Config CONFIG = SqlParser.config()
            .withParserFactory(SqlBabelParserImpl.FACTORY)
            .withUnquotedCasing(Casing.UNCHANGED)
            .withQuotedCasing(Casing.UNCHANGED)
            .withQuoting(Quoting.DOUBLE_QUOTE)
            .withIdentifierMaxLength(1000);

    private static final int LONGEST = 100_000;
    private static final int DEEPEST = 120;
    private static final int MOST_TOKENS = 6_000;

    private final SourceText page;
    private final Span span;
    private final String text;
    private final List<Token> tokens;
    private final StringBuilder prepared = new StringBuilder();
    private final List<Integer> origins = new ArrayList<>();

    private ExpressionParser(SourceText page, Span span) {
        this.page = page;
        this.span = span;
        this.text = page.text().substring(span.start(), span.end());
        this.tokens = Lexer.tokens(text);
    }

    /// Parses and checks the expression that stands at `span` of `page`.
    public static Outcome<Expr> parse(SourceText page, Span span, Scope scope) {
        ExpressionParser parser = new ExpressionParser(page, span);
        Optional<Problem> shape = parser.shapeProblem();
        if (shape.isPresent()) {
            return Outcome.failed(shape.get());
        }
        parser.prepare(scope);
        try {
            SqlNode node = SqlParser.create(parser.prepared.toString(), CONFIG).parseExpression();
            return new Checker(parser, scope).check(node);
        } catch (SqlParseException e) {
            return Outcome.failed(parser.syntaxProblem(e, scope));
        }
    }

    /// Parses and checks a text of its own, such as the value of an argument; `name` is used in messages.
    public static Outcome<Expr> parse(String name, String text, Scope scope) {
        return parse(new SourceText(name, text), new Span(0, text.length()), scope);
    }

    private Optional<Problem> shapeProblem() {
        if (tokens.stream().allMatch(t -> t.kind() == Kind.COMMENT)) {
            return Optional.of(
                    problem(Code.SYNTAX, span, "There is no expression here.", "Write one, such as trim(text)."));
        }
        for (Token token : tokens) {
            if (token.kind() == Kind.UNCLOSED) {
                char open = token.in(text).charAt(0);
                String what = open == '\'' ? "This text is not closed." : "This is not closed.";
                String todo = open == '\'' ? "Add ' at its end; write '' for a quote inside it." : "Close it.";
                return Optional.of(problem(Code.SYNTAX, token.span().shift(span.start()), what, todo));
            }
            if (isEscaped(token)) {
                Optional<String> wrong = EscapedText.problemWith(token.in(text));
                if (wrong.isPresent()) {
                    return Optional.of(problem(
                            Code.SYNTAX,
                            token.span().shift(span.start()),
                            wrong.get(),
                            "Write \\00E9 or \\+01F600 for a character, \\\\ for a backslash."));
                }
            }
        }
        return depthProblem();
    }

    private Optional<Problem> depthProblem() {
        int depth = 0;
        int before = 0;
        for (Token token : tokens) {
            String sign = token.in(text);
            before = sign.equalsIgnoreCase("not") || sign.equals("-") || sign.equals("+") ? before + 1 : 0;
            depth += opens(sign) ? 1 : closes(sign) ? -1 : 0;
            if (depth < 0 && sign.equals(")")) {
                return Optional.of(problem(
                        Code.SYNTAX,
                        token.span().shift(span.start()),
                        "This parenthesis closes nothing.",
                        "Remove it."));
            }
            if (depth > DEEPEST || before > DEEPEST || text.length() > LONGEST || tokens.size() > MOST_TOKENS) {
                return Optional.of(problem(
                        Code.TOO_DEEP,
                        token.span().shift(span.start()),
                        "This expression is too large or too deeply nested.",
                        "Split it with SET, or into several fixes."));
            }
        }
        return Optional.empty();
    }

    private static boolean opens(String sign) {
        return sign.equals("(") || sign.equalsIgnoreCase("case");
    }

    private static boolean closes(String sign) {
        return sign.equals(")") || sign.equalsIgnoreCase("end");
    }

    private void prepare(Scope scope) {
        int at = 0;
        for (int i = 0; i < tokens.size(); i++) {
            Token token = tokens.get(i);
            copy(at, token.span().start());
            at = token.span().end();
            if (isEscaped(token)) {
                // The parser knows escapes of four digits only.
                String plain = "'" + EscapedText.read(token.in(text)).replace("'", "''") + "'";
                plain.chars().forEach(c -> insert((char) c, token.span().start()));
            } else if (token.kind() == Kind.QUOTED_NAME) {
                // The parser knows no breaks in names.
                for (int c = token.span().start(); c < token.span().end(); c++) {
                    insert(text.charAt(c) == '\n' ? LINE_FEED : text.charAt(c) == '\r' ? RETURN : text.charAt(c), c);
                }
            } else if (token.kind() == Kind.NAME && needsQuotes(i, scope)) {
                insert('"', token.span().start());
                copy(token.span().start(), token.span().end());
                insert('"', token.span().end());
            } else if (token.in(text).equals("!=")) {
                insert('<', token.span().start());
                insert('>', token.span().start());
            } else {
                copy(token.span().start(), token.span().end());
            }
        }
        copy(at, text.length());
        origins.add(text.length());
    }

    /// Stand for breaks in names; Unicode reserves them, so that no name holds them.
    private static final char LINE_FEED = '\uFDD3';

    private static final char RETURN = '\uFDD4';

    /// The name that an identifier of the parser stands for.
    static String name(String identifier) {
        return identifier.replace(LINE_FEED, '\n').replace(RETURN, '\r');
    }

    private boolean isEscaped(Token token) {
        return token.kind() == Kind.TEXT && token.in(text).charAt(0) != '\'';
    }

    private boolean needsQuotes(int index, Scope scope) {
        boolean call =
                index + 1 < tokens.size() && tokens.get(index + 1).in(text).equals("(");
        String word = tokens.get(index).in(text);
        boolean date = word.equalsIgnoreCase("date")
                && index + 1 < tokens.size()
                && tokens.get(index + 1).kind() == Kind.TEXT;
        boolean type = index > 0 && tokens.get(index - 1).in(text).equalsIgnoreCase("as");
        if (date || type) {
            return false;
        }
        return call
                ? hasComma(index + 2)
                        || word.chars().anyMatch(c -> c > 127)
                        || SPECIAL_CALLS.contains(word.toLowerCase(Locale.ROOT))
                : scope.find(word).isPresent();
    }

    private static final Set<String> SPECIAL_CALLS =
            Set.of("repeat", "format", "row", "left", "right", "length", "year", "month", "day", "weekday");

    private boolean hasComma(int from) {
        int depth = 1;
        for (int i = from; i < tokens.size() && depth > 0; i++) {
            String sign = tokens.get(i).in(text);
            if (depth == 1 && sign.equals(",")) {
                return true;
            }
            depth += sign.equals("(") ? 1 : sign.equals(")") ? -1 : 0;
        }
        return false;
    }

    private void copy(int from, int to) {
        for (int i = from; i < to; i++) {
            insert(text.charAt(i), i);
        }
    }

    private void insert(char c, int origin) {
        prepared.append(c);
        origins.add(origin);
    }

    /// The span, in the page, of what the parser calls `position`.
    Span spanOf(SqlParserPos position) {
        SourceText source = new SourceText("", prepared.toString());
        int start = source.offset(position.getLineNum(), position.getColumnNum());
        int end = source.offset(position.getEndLineNum(), position.getEndColumnNum()) + 1;
        int from = origins.get(Math.min(start, origins.size() - 1));
        int to = origins.get(Math.min(Math.max(end, start), origins.size() - 1));
        return new Span(from, Math.max(from, to)).shift(span.start());
    }

    Problem problem(Code code, Span where, String what, String todo) {
        return Problem.error(code, new Where(page, where), what, todo);
    }

    private Problem syntaxProblem(SqlParseException e, Scope scope) {
        SqlParserPos position = e.getPos();
        if (position == null) {
            return problem(Code.SYNTAX, span, "This is not an SQL expression.", "Look at its commas and quotes.");
        }
        Span where = spanOf(position);
        Optional<Token> found = tokens.stream()
                .filter(t -> t.kind() != Kind.COMMENT && t.span().end() + span.start() > where.start())
                .findFirst();
        if (found.isEmpty()) {
            return problem(Code.SYNTAX, endSpan(), "The expression ends too early.", missingAtEnd());
        }
        Span at = found.get().span().shift(span.start());
        String sign = found.get().in(text);
        // A word that the parser keeps for itself may be the name of a column that is not there.
        boolean name = found.get().kind() == Kind.NAME
                && SqlParser.create("", CONFIG).getMetadata().isReservedWord(sign.toUpperCase(Locale.ROOT))
                && scope.find(sign).isEmpty();
        return name
                ? problem(Code.UNKNOWN_NAME, at, "no name " + sign + ".", Checker.nearest(sign, scope))
                : problem(Code.SYNTAX, at, "`" + sign + "` is not expected here.", hint(sign, found.get()));
    }

    private Span endSpan() {
        int end = tokens.getLast().span().end() + span.start();
        return new Span(end, end);
    }

    private String missingAtEnd() {
        long open = tokens.stream().filter(t -> t.in(text).equals("(")).count();
        long closed = tokens.stream().filter(t -> t.in(text).equals(")")).count();
        long cases =
                tokens.stream().filter(t -> t.in(text).equalsIgnoreCase("case")).count();
        long ends =
                tokens.stream().filter(t -> t.in(text).equalsIgnoreCase("end")).count();
        if (cases > ends) {
            return "A CASE has no END.";
        }
        return open > closed ? "Close the parenthesis with )." : "Something is missing after the last sign.";
    }

    private String hint(String sign, Token token) {
        if (sign.equals(",") || sign.equals(")")) {
            return "Look for a comma too many or an argument left out.";
        }
        if (token.kind() == Kind.OTHER && sign.equals("`")) {
            return "Names are quoted with \", texts with '.";
        }
        if (token.kind() == Kind.KEYWORD || token.kind() == Kind.NAME) {
            return "A comma or an operator may be missing before it; a name like this is written \"" + sign + "\".";
        }
        return "Look at the signs before it.";
    }
}
