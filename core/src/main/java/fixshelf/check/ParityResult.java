package fixshelf.check;

import fixshelf.engine.Answer;
import fixshelf.language.tree.Expr;
import fixshelf.render.Language;
import fixshelf.type.Literals;
import java.util.List;
import java.util.stream.Collectors;

/// What came of a subject in a language.
///
/// @param rows how many rows of arguments were tried
/// @param millis how long the language took
public record ParityResult(Subject subject, Language language, Verdict verdict, int rows, long millis) {

    /// Whether the answers are the same.
    public sealed interface Verdict {}

    /// The same on every row; on `beyond` of them the language refused by name, as the value is beyond what it holds.
    public record Same(int rows, int beyond) implements Verdict {}

    /// The first difference, its input made as small as it could be, and how many rows differ in all.
    public record Differs(List<Expr.Literal> input, Answer expected, Answer got, int differing) implements Verdict {}

    /// The language cannot say it, and why.
    public record CannotSay(String why) implements Verdict {}

    /// It was not run, and why.
    public record NotRun(String why) implements Verdict {}

    public boolean differs() {
        return verdict instanceof Differs;
    }

    /// A mark and a word: `● same`, `▲ 3 differ`, `○ cannot say it`, `· not run`.
    public String mark() {
        return switch (verdict) {
            case Same(int _, int beyond) -> beyond == 0 ? "● same" : "● same, within its range";
            case Differs(List<Expr.Literal> _, Answer _, Answer _, int count) ->
                "▲ " + count + (count == 1 ? " differs" : " differ");
            case CannotSay _ -> "○ cannot say it";
            case NotRun _ -> "· not run";
        };
    }

    /// One word for machines.
    public String word() {
        return switch (verdict) {
            case Same(int _, int beyond) -> beyond == 0 ? "same" : "same_within_range";
            case Differs _ -> "differs";
            case CannotSay _ -> "cannot_say";
            case NotRun _ -> "not_run";
        };
    }

    /// What stands behind the mark, as a sentence.
    public String detail() {
        return switch (verdict) {
            case Same(int rows, int beyond) ->
                String.format("%,d rows of arguments", rows)
                        + (beyond == 0 ? "" : String.format("; %,d beyond its range, refused by name", beyond));
            case Differs(List<Expr.Literal> input, Answer expected, Answer got, int _) ->
                inputs(input) + " gives " + shown(got) + ", not " + shown(expected);
            case CannotSay(String why) -> why;
            case NotRun(String why) -> why;
        };
    }

    private static String inputs(List<Expr.Literal> input) {
        return input.stream().map(v -> Literals.print(v.value())).collect(Collectors.joining(", "));
    }

    /// An answer with its invisible characters to be seen.
    public static String shown(Answer answer) {
        return switch (answer) {
            case Answer.Value(Object value) -> CaseResult.shown(value);
            case Answer.Failed(String why) -> "the error " + why;
            case Answer.NotSaid(String why) -> why;
        };
    }
}
