package fixshelf.language.emulation;

import static fixshelf.language.catalogue.Trees.call;
import static fixshelf.language.catalogue.Trees.number;
import static fixshelf.language.catalogue.Trees.text;
import static fixshelf.language.catalogue.Trees.when;

import fixshelf.language.catalogue.Arithmetic;
import fixshelf.language.catalogue.Comparisons;
import fixshelf.language.catalogue.LetterFunctions;
import fixshelf.language.catalogue.PatternFunctions;
import fixshelf.language.catalogue.TextFunctions;
import fixshelf.language.pattern.PatternHelp;
import fixshelf.language.pattern.RegexParser;
import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.text.Normalizer;
import java.util.List;
import java.util.Optional;

/// Text put together from simpler calls.
final class TextEmulations {
    private static final Accents ACCENTS = Accents.read();

    private TextEmulations() {}

    static Optional<Expr> of(Expr.Call call) {
        List<Expr> a = call.arguments();
        return switch (call.function().name()) {
            case "text_between" -> Optional.of(between(a.get(0), a.get(1), a.get(2)));
            case "lpad" -> Optional.of(call(TextFunctions.CONCAT, filling(a), a.getFirst()));
            case "rpad" -> Optional.of(call(TextFunctions.CONCAT, a.getFirst(), filling(a)));
            case "strip_accents" ->
                Optional.of(
                        call(LetterFunctions.TRANSLATE, a.getFirst(), text(ACCENTS.accented()), text(ACCENTS.plain())));
            case "replace_any_case" -> replaceAnyCase(a);
            default -> Optional.empty();
        };
    }

    private static Expr between(Expr text, Expr before, Expr after) {
        Expr start = call(TextFunctions.POSITION, text, before);
        Expr rest =
                call(TextFunctions.SUBSTRING, text, call(Arithmetic.PLUS, start, call(TextFunctions.LENGTH, before)));
        Expr end = call(TextFunctions.POSITION, rest, after);
        Expr found = call(
                Comparisons.AND,
                call(Comparisons.GREATER, start, number(0)),
                call(Comparisons.GREATER, end, number(0)));
        return when(found, call(TextFunctions.LEFT, rest, call(Arithmetic.MINUS, end, number(1))));
    }

    /// What is missing to the length, written out where everything but the text is known.
    private static Expr filling(List<Expr> a) {
        Expr fill = a.size() > 2 ? a.get(2) : text(" ");
        Expr whole = call(TextFunctions.REPEAT, fill, a.get(1));
        boolean known =
                fill instanceof Expr.Literal(String _, Type _) && a.get(1) instanceof Expr.Literal(Long _, Type _);
        if (known) {
            String one = (String) ((Expr.Literal) fill).value();
            int length = Math.clamp((Long) ((Expr.Literal) a.get(1)).value(), 0, 1000);
            int[] points = one.repeat(length).codePoints().limit(length).toArray();
            whole = text(new String(points, 0, points.length));
        }
        return call(
                TextFunctions.LEFT, whole, call(Arithmetic.MINUS, a.get(1), call(TextFunctions.LENGTH, a.getFirst())));
    }

    private static Optional<Expr> replaceAnyCase(List<Expr> a) {
        if (!(a.get(1) instanceof Expr.Literal(String search, Type _)
                && a.get(2) instanceof Expr.Literal(String replacement, Type _))) {
            return Optional.empty();
        }
        if (search.isEmpty()) {
            return Optional.of(a.getFirst());
        }
        return Optional.of(call(
                PatternFunctions.REGEXP_REPLACE,
                a.getFirst(),
                text(RegexParser.ANY_CASE + PatternHelp.escaped(search)),
                text(replacement.replace("\\", "\\\\"))));
    }

    /// Latin letters with accents, and after them the combining marks; the letters without, in the same order.
    private record Accents(String accented, String plain) {
        static Accents read() {
            StringBuilder accented = new StringBuilder();
            StringBuilder plain = new StringBuilder();
            for (int c = 0xC0; c <= 0x1EFF; c = c == 0x24F ? 0x1E00 : c + 1) {
                String taken = Normalizer.normalize(Character.toString(c), Normalizer.Form.NFD);
                boolean letter = taken.length() > 1 && taken.chars().skip(1).allMatch(m -> m >= 0x300 && m <= 0x36F);
                if (letter) {
                    accented.appendCodePoint(c);
                    plain.append(taken.charAt(0));
                }
            }
            for (int mark = 0x300; mark <= 0x36F; mark++) {
                accented.appendCodePoint(mark);
            }
            return new Accents(accented.toString(), plain.toString());
        }
    }
}
