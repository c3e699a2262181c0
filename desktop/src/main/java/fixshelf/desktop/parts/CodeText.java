package fixshelf.desktop.parts;

import fixshelf.language.tree.Lexer;
import fixshelf.problem.Span;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.TreeSet;
import org.fxmisc.richtext.model.StyleSpans;
import org.fxmisc.richtext.model.StyleSpansBuilder;

/// Colours for code: a pure function from text to style spans, made with the real lexer.
final class CodeText {
    private CodeText() {}

    /// The spans of a text; `keywords` in lower case are marked besides those of the expression language, and
    /// `problems` are underlined.
    static StyleSpans<Collection<String>> spans(String text, Set<String> keywords, List<Span> problems) {
        TreeSet<Integer> cuts = new TreeSet<>(List.of(0, text.length()));
        List<Lexer.Token> tokens = Lexer.tokens(text);
        tokens.forEach(t -> {
            cuts.add(t.span().start());
            cuts.add(t.span().end());
        });
        List<Span> marks = problems.stream().map(p -> visible(p, text.length())).toList();
        marks.forEach(p -> {
            cuts.add(p.start());
            cuts.add(p.end());
        });
        StyleSpansBuilder<Collection<String>> spans = new StyleSpansBuilder<>();
        List<Integer> all = new ArrayList<>(cuts);
        spans.add(List.of(), 0);
        for (int i = 0; i + 1 < all.size(); i++) {
            spans.add(classes(text, all.get(i), tokens, keywords, marks), all.get(i + 1) - all.get(i));
        }
        return spans.create();
    }

    /// A problem at the end of the text, or one of no length, still gets a character to be seen at.
    private static Span visible(Span span, int length) {
        int start = Math.max(0, Math.min(span.start(), length - 1));
        return new Span(start, Math.max(start, Math.min(length, Math.max(span.end(), start + 1))));
    }

    private static List<String> classes(
            String text, int at, List<Lexer.Token> tokens, Set<String> keywords, List<Span> marks) {
        List<String> classes = new ArrayList<>();
        for (Lexer.Token token : tokens) {
            if (token.span().start() <= at && at < token.span().end()) {
                classes.add(styleOf(token, text, keywords));
                break;
            }
        }
        if (marks.stream().anyMatch(m -> m.start() <= at && at < m.end())) {
            classes.add("code-problem");
        }
        return classes;
    }

    private static String styleOf(Lexer.Token token, String text, Set<String> keywords) {
        return switch (token.kind()) {
            case KEYWORD -> "code-keyword";
            case TEXT -> "code-text";
            case QUOTED_NAME -> keywords.contains("def") ? "code-text" : "code-name";
            case NUMBER -> "code-number";
            case COMMENT -> "code-comment";
            case NAME -> keywords.contains(token.in(text).toLowerCase(Locale.ROOT)) ? "code-keyword" : "code-name";
            case SIGN, OTHER, UNCLOSED -> "code-sign";
        };
    }
}
