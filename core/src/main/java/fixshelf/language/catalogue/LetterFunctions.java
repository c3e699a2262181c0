package fixshelf.language.catalogue;

import static fixshelf.language.catalogue.Entry.define;
import static fixshelf.language.catalogue.Entry.fixed;
import static fixshelf.language.catalogue.Entry.fixedText;
import static fixshelf.language.catalogue.Entry.integer;
import static fixshelf.language.catalogue.Entry.optional;
import static fixshelf.language.catalogue.Entry.text;

import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.FunctionDef.Group;
import java.util.List;

/// Text changed letter by letter, or filled up.
public final class LetterFunctions {
    private LetterFunctions() {}

    static final FunctionDef REVERSE = define(Group.TEXT, "reverse", text("text"))
            .about("The code points in reverse order.")
            .example("reverse('brass')", "'ssarb'")
            .example("reverse('aé😀')", "'😀éa'")
            .example("reverse('')", "''")
            .done();

    static final FunctionDef INITCAP = define(Group.TEXT, "initcap", text("text"))
            .about("""
                In every run of letters and digits (Unicode categories L and Nd), the first character as by `upper`
                and the others as by `lower`. Combining marks (M) do not end a run; all other characters stay as they
                are.\
                """)
            .example("initcap('brass HINGE')", "'Brass Hinge'")
            .example("initcap('o''neil-smith 3rd')", "'O''Neil-Smith 3rd'")
            .example("initcap('éCLAIR straße')", "'Éclair Straße'")
            .example("initcap(U&'e\\0301CLAIR \\24D0b \\2170')", "U&'E\\0301clair \\24D0B \\2170'")
            .done();

    public static final FunctionDef LPAD = define(
                    Group.TEXT, "lpad", text("text"), fixed(integer("length")), optional(fixedText("fill")))
            .about("""
                Filled up at the start with `fill`, again and again, to `length` code points; with spaces when left
                out. A text that is long enough already is not cut; an empty `fill` changes nothing.\
                """)
            .example("lpad('42', 5, '0')", "'00042'")
            .example("lpad('123456', 5, '0')", "'123456'")
            .example("lpad('a', 6, 'xyz')", "'xyzxya'")
            .done();

    public static final FunctionDef RPAD = define(
                    Group.TEXT, "rpad", text("text"), fixed(integer("length")), optional(fixedText("fill")))
            .about("As `lpad`, at the end.")
            .example("rpad('ab', 5, '.')", "'ab...'")
            .example("rpad('abcdef', 5, '.')", "'abcdef'")
            .example("rpad('a', 3)", "'a  '")
            .done();

    public static final FunctionDef TRANSLATE = define(
                    Group.TEXT, "translate", text("text"), fixedText("from"), fixedText("to"))
            .about("""
                Each character that is in `from` becomes the one at the same place in `to`; where `to` is shorter, it
                is dropped. All at once, so two characters can be swapped. Of repeats in `from` the first counts.\
                """)
            .example("translate('1.234,5', '.,', ',.')", "'1,234.5'")
            .example("translate('(a)', '()', '')", "'a'")
            .example("translate('abc', 'ab', 'x')", "'xc'")
            .done();

    static final FunctionDef STRIP_ACCENTS = define(Group.TEXT, "strip_accents", text("text"))
            .about("""
                Latin letters with accents, of U+00C0 to U+024F and U+1E00 to U+1EFF, become the letter without;
                combining marks U+0300 to U+036F are dropped. Letters that are not a letter and marks, such as ß and ł,
                stay.\
                """)
            .example("strip_accents('naïve café')", "'naive cafe'")
            .example("strip_accents(U&'e\\0301t')", "'et'")
            .example("strip_accents('straße ł ǽ')", "'straße ł æ'")
            .done();

    static final FunctionDef NORMALIZE = define(Group.TEXT, "normalize", text("text"))
            .about("Unicode's normal form C: a letter and its marks as one character where there is one.")
            .example("normalize(U&'e\\0301')", "'é'")
            .example("length(normalize(U&'e\\0301'))", "1")
            .example("normalize('plain')", "'plain'")
            .done();

    static final FunctionDef REPLACE_ANY_CASE = define(
                    Group.TEXT, "replace_any_case", text("text"), fixedText("search"), fixedText("replacement"))
            .about("""
                As `replace`, but a letter of `search` is also found as its small or capital form, by Unicode's simple
                mappings.\
                """)
            .example("replace_any_case('Kettle KETTLE', 'kettle', 'pot')", "'pot pot'")
            .example("replace_any_case('ÉTÉ', 'é', 'e')", "'eTe'")
            .example("replace_any_case('a.b', '.', '-')", "'a-b'")
            .done();

    static final List<FunctionDef> ALL =
            List.of(REVERSE, INITCAP, LPAD, RPAD, TRANSLATE, STRIP_ACCENTS, NORMALIZE, REPLACE_ANY_CASE);
}
