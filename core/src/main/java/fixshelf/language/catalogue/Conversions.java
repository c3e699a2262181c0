package fixshelf.language.catalogue;

import static fixshelf.language.catalogue.Entry.define;
import static fixshelf.language.catalogue.Entry.fixed;
import static fixshelf.language.catalogue.Entry.integer;
import static fixshelf.language.catalogue.Entry.numeric;
import static fixshelf.language.catalogue.Entry.optional;
import static fixshelf.language.catalogue.Entry.text;

import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.FunctionDef.Group;
import fixshelf.language.tree.FunctionDef.Result;
import java.util.List;

/// From text to numbers and back. What cannot be read whole is null, never a part of it.
public final class Conversions {
    private Conversions() {}

    static final FunctionDef TO_INTEGER = define(Group.CONVERSION, "to_integer", text("text"))
            .gives(Result.INTEGER)
            .about("""
                The whole number that the text says: white space at the ends, a sign, 1 to 38 digits, within 64
                bits. Anything else, such as `1.0`, `1e3` or `12,345`, gives null.\
                """)
            .example("to_integer(' 42 ')", "42")
            .example("to_integer('-007')", "-7")
            .example("to_integer('12,345')", "NULL")
            .example("to_integer('9223372036854775808')", "NULL")
            .done();

    static final FunctionDef TO_DECIMAL = define(
                    Group.CONVERSION, "to_decimal", text("text"), optional(fixed(integer("scale"))))
            .gives(Result.DECIMAL)
            .about("""
                The exact number that the text says, as `decimal(18, scale)` (scale 4 when left out): white space
                at the ends, a sign, digits with at most one point. Rounded half away from zero. Null when it
                does not fit, is longer than 100 characters, or is anything else.\
                """)
            .example("to_decimal('1.20', 2)", "1.20")
            .example("to_decimal('-2.675', 2)", "-2.68")
            .example("to_decimal('12,5', 2)", "NULL")
            .example("to_decimal('.5', 1)", "0.5")
            .done();

    public static final FunctionDef TO_TEXT = define(Group.CONVERSION, "to_text", numeric("number"))
            .about("""
                The digits, with `-` before a negative number; of an exact number with all the places of its type: 1.50
                as `1.50`.\
                """)
            .example("to_text(1.50)", "'1.50'")
            .example("to_text(-0.05)", "'-0.05'")
            .example("to_text(42)", "'42'")
            .example("to_text(-7)", "'-7'")
            .example("to_text(0)", "'0'")
            .done();

    public static final FunctionDef CHR = define(Group.CONVERSION, "chr", fixed(integer("code_point")))
            .about("The character with that Unicode number, 1 to 1114111, surrogates excluded.")
            .example("chr(233)", "'é'")
            .example("'a' || chr(9)", "U&'a\\0009'")
            .example("length(chr(128512))", "1")
            .done();

    static final List<FunctionDef> ALL = List.of(TO_INTEGER, TO_DECIMAL, TO_TEXT, CHR);
}
