package fixshelf.language.catalogue;

import static fixshelf.language.catalogue.Entry.define;
import static fixshelf.language.catalogue.Entry.fixed;
import static fixshelf.language.catalogue.Entry.fixedText;
import static fixshelf.language.catalogue.Entry.integer;
import static fixshelf.language.catalogue.Entry.optional;
import static fixshelf.language.catalogue.Entry.text;

import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.FunctionDef.Group;
import fixshelf.language.tree.FunctionDef.Result;
import java.util.List;

/// Text in, text or a number out. Every one of them counts code points and compares them exactly.
public final class TextFunctions {
    private TextFunctions() {}

    public static final FunctionDef TRIM = define(Group.TEXT, "trim", text("text"), optional(fixedText("characters")))
            .aliases("btrim")
            .about("""
                Drops, at both ends, every character that is among `characters`; only the space U+0020 when
                left out. A set, not a prefix: order and repeats do not matter. An empty set drops nothing.\
                """)
            .example("trim('  a b ')", "'a b'")
            .example("trim('--x-y--', '-')", "'x-y'")
            .example("trim(U&'\\00A0a ')", "U&'\\00A0a'")
            .example("trim('   ')", "''")
            .example("trim('abc', '')", "'abc'")
            .done();

    public static final FunctionDef LTRIM = define(Group.TEXT, "ltrim", text("text"), optional(fixedText("characters")))
            .about("As `trim`, at the start only.")
            .example("ltrim('  a b ')", "'a b '")
            .example("ltrim(':*:ab:c', '*:')", "'ab:c'")
            .example("ltrim('00120', '0')", "'120'")
            .done();

    public static final FunctionDef RTRIM = define(Group.TEXT, "rtrim", text("text"), optional(fixedText("characters")))
            .about("As `trim`, at the end only.")
            .example("rtrim('  a b ')", "'  a b'")
            .example("rtrim('12 kg', 'kg ')", "'12'")
            .example("rtrim('a]^-', '-^]')", "'a'")
            .done();

    public static final FunctionDef REMOVE_PREFIX = define(
                    Group.TEXT, "remove_prefix", text("text"), fixedText("prefix"))
            .about("The text without `prefix` at its start, once; unchanged when it does not start so.")
            .example("remove_prefix('ABBA', 'AB')", "'BA'")
            .example("remove_prefix('ababx', 'ab')", "'abx'")
            .example("remove_prefix('BA', 'AB')", "'BA'")
            .example("remove_prefix('A', '')", "'A'")
            .done();

    public static final FunctionDef REMOVE_SUFFIX = define(
                    Group.TEXT, "remove_suffix", text("text"), fixedText("suffix"))
            .about("The text without `suffix` at its end, once; unchanged when it does not end so.")
            .example("remove_suffix('12 kg', ' kg')", "'12'")
            .example("remove_suffix('kg', ' kg')", "'kg'")
            .example("remove_suffix('a..', '.')", "'a.'")
            .done();

    public static final FunctionDef REPLACE = define(
                    Group.TEXT, "replace", text("text"), fixedText("search"), fixedText("replacement"))
            .about("""
                Every occurrence of `search`, from the left and not overlapping, becomes `replacement`. Signs are
                literal; capitals matter. An empty `search` changes nothing.\
                """)
            .example("replace('<a<b', '<', '')", "'ab'")
            .example("replace('a.b', '.', '-')", "'a-b'")
            .example("replace('aaa', 'aa', 'b')", "'ba'")
            .example("replace('abc', '', '-')", "'abc'")
            .done();

    static final FunctionDef UPPER = define(Group.TEXT, "upper", text("text"))
            .about("Each code point by Unicode's simple upper-case mapping: the length never changes, ß stays ß.")
            .example("upper('kettle')", "'KETTLE'")
            .example("upper('straße é')", "'STRAßE É'")
            .example("upper('')", "''")
            .done();

    static final FunctionDef LOWER = define(Group.TEXT, "lower", text("text"))
            .about("Each code point by Unicode's simple lower-case mapping: Σ is always σ, İ is i.")
            .example("lower('KETTLE')", "'kettle'")
            .example("lower('ÉΣ')", "'éσ'")
            .example("lower('a1-Z')", "'a1-z'")
            .done();

    public static final FunctionDef LENGTH = define(Group.TEXT, "length", text("text"))
            .aliases("char_length", "character_length")
            .gives(Result.INTEGER)
            .about("The number of code points.")
            .example("length('kettle')", "6")
            .example("length('é😀')", "2")
            .example("length('')", "0")
            .done();

    public static final FunctionDef SUBSTRING = define(
                    Group.TEXT, "substring", text("text"), integer("start"), optional(integer("length")))
            .aliases("substr")
            .about("""
                The code points from `start` (the first is 1), at most `length` of them, as in the SQL standard:
                positions before the text count but hold nothing; a negative `length` gives the empty text. Numbers
                beyond a billion count as a billion.\
                """)
            .example("substring('brass', 2, 3)", "'ras'")
            .example("substring('brass', 4)", "'ss'")
            .example("substring('brass', 0, 3)", "'br'")
            .example("substring('brass', 9, 2)", "''")
            .example("substring('brass', 2, -1)", "''")
            .done();

    public static final FunctionDef LEFT = define(Group.TEXT, "left", text("text"), integer("count"))
            .about("The first `count` code points; all of them when there are fewer, none when `count` is below 1.")
            .example("left('brass', 2)", "'br'")
            .example("left('br', 5)", "'br'")
            .example("left('brass', -1)", "''")
            .done();

    static final FunctionDef RIGHT = define(Group.TEXT, "right", text("text"), integer("count"))
            .about("The last `count` code points; all of them when there are fewer, none when `count` is below 1.")
            .example("right('brass', 2)", "'ss'")
            .example("right('br', 5)", "'br'")
            .example("right('brass', 0)", "''")
            .done();

    public static final FunctionDef POSITION = define(Group.TEXT, "position", text("text"), fixedText("search"))
            .aliases("instr", "strpos")
            .gives(Result.INTEGER)
            .about("""
                Where `search` first begins, in code points from 1; 0 when it does not occur, 1 when it is empty.
                Also written `position(search IN text)`.\
                """)
            .example("position('b' IN 'aéb')", "3")
            .example("position('abc', 'x')", "0")
            .example("position('abc', '')", "1")
            .done();

    public static final FunctionDef STARTS_WITH = define(Group.TEXT, "starts_with", text("text"), fixedText("prefix"))
            .gives(Result.BOOLEAN)
            .about("Whether the text begins with `prefix`.")
            .example("starts_with('AQ-1', 'AQ')", "TRUE")
            .example("starts_with('aq-1', 'AQ')", "FALSE")
            .example("starts_with('x', '')", "TRUE")
            .done();

    public static final FunctionDef ENDS_WITH = define(Group.TEXT, "ends_with", text("text"), fixedText("suffix"))
            .gives(Result.BOOLEAN)
            .about("Whether the text ends with `suffix`.")
            .example("ends_with('12 kg', 'kg')", "TRUE")
            .example("ends_with('12 KG', 'kg')", "FALSE")
            .example("ends_with('x', '')", "TRUE")
            .done();

    public static final FunctionDef CONTAINS = define(Group.TEXT, "contains", text("text"), fixedText("search"))
            .gives(Result.BOOLEAN)
            .about("Whether `search` occurs in the text; signs are literal.")
            .example("contains('a.b', '.')", "TRUE")
            .example("contains('ab', '.')", "FALSE")
            .example("contains('ab', '')", "TRUE")
            .done();

    public static final FunctionDef REPEAT = define(Group.TEXT, "repeat", text("text"), fixed(integer("count")))
            .about("The text `count` times one after another; the empty text when `count` is below 1.")
            .example("repeat('ab', 3)", "'ababab'")
            .example("repeat('ab', 0)", "''")
            .example("repeat('', 3)", "''")
            .done();

    public static final FunctionDef CONCAT = define(Group.TEXT, "||", text("left"), text("right"))
            .about("The right text after the left one; null when either is null.")
            .example("'a' || 'b'", "'ab'")
            .example("'a' || NULL", "NULL")
            .example("'a' || ''", "'a'")
            .done();

    public static final FunctionDef CONCAT_CALL = define(Group.TEXT, "concat", text("first"), text("next"))
            .repeatsLast()
            .about("All the texts one after another, as `||`: null when any is null.")
            .example("concat('a', '-', 'b')", "'a-b'")
            .example("concat('a', NULL)", "NULL")
            .example("concat('', '')", "''")
            .done();

    static final FunctionDef CONCAT_WS = define(
                    Group.TEXT, "concat_ws", fixedText("separator"), text("first"), text("next"))
            .repeatsLast()
            .ownNulls()
            .about("""
                The texts that are not null, with `separator` between them. Null when all of them are null, or
                the separator is. Empty texts are kept: wrap a part in `nullif(part, '')` to skip it too.\
                """)
            .example("concat_ws(' ', 'A', NULL, 'C')", "'A C'")
            .example("concat_ws(' ', NULL, NULL)", "NULL")
            .example("concat_ws('-', '', 'a')", "'-a'")
            .done();

    static final FunctionDef TEXT_BETWEEN = define(
                    Group.TEXT, "text_between", text("text"), fixedText("before"), fixedText("after"))
            .about("""
                What stands between the first `before` and the next `after`; signs are literal. Null when one of them
                is missing.\
                """)
            .example("text_between('rate:4/5', 'rate:', '/')", "'4'")
            .example("text_between('(a)(b)', '(', ')')", "'a'")
            .example("text_between('rate:4', 'rate:', '/')", "NULL")
            .example("text_between('4/5', '', '/')", "'4'")
            .done();

    static final List<FunctionDef> ALL = List.of(
            TRIM,
            LTRIM,
            RTRIM,
            REMOVE_PREFIX,
            REMOVE_SUFFIX,
            REPLACE,
            UPPER,
            LOWER,
            LENGTH,
            SUBSTRING,
            LEFT,
            RIGHT,
            POSITION,
            STARTS_WITH,
            ENDS_WITH,
            CONTAINS,
            REPEAT,
            CONCAT,
            CONCAT_CALL,
            CONCAT_WS,
            TEXT_BETWEEN);
}
