package fixshelf.plan;

import fixshelf.problem.Problem;
import fixshelf.problem.Problem.Where;
import fixshelf.problem.Span;
import java.util.HashSet;
import java.util.Optional;
import java.util.Set;

/// Where in a page the words stand that a problem of a line is about: one name of a list, one sign of an expression. A
/// page holds them as YAML writes them, broken over lines, in quotes, one of several values. Words that cannot be found
/// so, as some escapes cannot, leave the place as wide as it was.
final class ProblemPlaces {
    private final Set<Span> told = new HashSet<>();

    /// The place inside of `wide`; of words that come several times, one that was not given yet.
    Where within(Where wide, Problem problem) {
        String words = problem.where().source().text();
        String page = wide.source().text();
        if (!problem.where().source().name().equals(Refusal.BLANK)
                || words.isBlank()
                || wide.span().end() > page.length()) {
            return wide;
        }
        Optional<Span> first = Optional.empty();
        for (int at = wide.span().start(); at < wide.span().end(); at++) {
            Optional<Span> found =
                    found(page, at, wide.span().end(), words, problem.where().span());
            if (found.isPresent() && told.add(found.get())) {
                return new Where(wide.source(), found.get());
            }
            first = first.or(() -> found);
        }
        return first.map(s -> new Where(wide.source(), s)).orElse(wide);
    }

    /// The part of the words that begin at a place of the page; empty where they do not stand there.
    private static Optional<Span> found(String page, int begin, int end, String words, Span part) {
        int from = Math.min(part.start(), words.length());
        int to = Math.max(from, Math.min(part.end(), words.length()));
        int start = -1;
        int stop = -1;
        int at = begin;
        for (int i = 0; i < words.length(); i++) {
            char sign = words.charAt(i);
            if (Character.isWhitespace(sign)) {
                continue;
            }
            while (i > 0 && at < end && page.charAt(at) != sign && isWriting(page, at)) {
                at++;
            }
            if (at >= end || page.charAt(at) != sign) {
                return Optional.empty();
            }
            start = i >= from && start < 0 ? at : start;
            at++;
            stop = i < to ? at : stop;
        }
        if (isInWord(page, begin, words.charAt(0), -1) || isInWord(page, at - 1, page.charAt(at - 1), 1)) {
            return Optional.empty();
        }
        int shown = start < 0 ? at : start;
        return Optional.of(new Span(shown, Math.max(shown, stop)));
    }

    /// What YAML writes beside the signs themselves: blanks and breaks, a quote written twice, a backslash.
    private static boolean isWriting(String page, int at) {
        char sign = page.charAt(at);
        return Character.isWhitespace(sign)
                || sign == '\\'
                || sign == '\'' && page.charAt(at - 1) == '\''
                || sign == '"' && page.charAt(at - 1) == '\\';
    }

    private static boolean isInWord(String page, int at, char sign, int side) {
        int beside = at + side;
        return beside >= 0 && beside < page.length() && isOfWord(sign) && isOfWord(page.charAt(beside));
    }

    private static boolean isOfWord(char sign) {
        return Character.isLetterOrDigit(sign) || sign == '_';
    }
}
