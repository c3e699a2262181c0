package fixshelf.language;

import static fixshelf.language.Entry.define;
import static fixshelf.language.Entry.fixed;
import static fixshelf.language.Entry.fixedText;
import static fixshelf.language.Entry.integer;
import static fixshelf.language.Entry.list;
import static fixshelf.language.Entry.mapping;
import static fixshelf.language.Entry.optional;
import static fixshelf.language.Entry.same;
import static fixshelf.language.Entry.text;

import fixshelf.language.FunctionDef.Group;
import fixshelf.language.FunctionDef.Result;
import java.util.List;

/// Separated text as a list of its parts, and lists and mappings that are known when code is written.
final class ListFunctions {
    private ListFunctions() {}

    static final FunctionDef SPLIT_PART = define(
                    Group.LIST, "split_part", text("text"), fixedText("separator"), fixed(integer("number")))
            .about("""
                The part with that number, from 1, of the text cut at every `separator`; from the end for a negative
                number. Null when there are not so many parts. The separator is literal and not empty.\
                """)
            .example("split_part('lamp,brass,2', ',', 2)", "'brass'")
            .example("split_part('lamp,brass', ',', 3)", "NULL")
            .example("split_part('a||b', '|', 2)", "''")
            .example("split_part('a/b/c', '/', -1)", "'c'")
            .example("split_part('', ',', 1)", "''")
            .done();

    static final FunctionDef PART_COUNT = define(Group.LIST, "part_count", text("text"), fixedText("separator"))
            .gives(Result.INTEGER)
            .about("How many parts `separator` cuts the text into; 1 where it does not occur.")
            .example("part_count('a,b,c', ',')", "3")
            .example("part_count('', ',')", "1")
            .example("part_count('a--b', '--')", "2")
            .done();

    static final FunctionDef FIRST_PARTS = define(
                    Group.LIST, "first_parts", text("text"), fixedText("separator"), fixed(integer("count")))
            .about("""
                The first `count` parts with the separators between them; all of them when there are fewer. The
                separator is one character.\
                """)
            .example("first_parts('a,b,c,d', ',', 2)", "'a,b'")
            .example("first_parts('a,b', ',', 5)", "'a,b'")
            .example("first_parts(',b,c', ',', 2)", "',b'")
            .done();

    static final FunctionDef REMOVE_PART = define(
                    Group.LIST, "remove_part", text("text"), fixedText("separator"), fixedText("part"))
            .about("""
                Without the parts that are exactly `part`, and without their separators; parts that only begin or end
                so stay. The empty text when no part is left. `part` is not empty.\
                """)
            .example("remove_part('a,zz,b,zz', ',', 'zz')", "'a,b'")
            .example("remove_part('azz,1zz,zz', ',', 'zz')", "'azz,1zz'")
            .example("remove_part('zz,zz', ',', 'zz')", "''")
            .example("remove_part(',zz,b', ',', 'zz')", "',b'")
            .done();

    static final FunctionDef DROP_EMPTY_PARTS = define(
                    Group.LIST, "drop_empty_parts", text("text"), fixedText("separator"))
            .about("Without leading, trailing and doubled separators.")
            .example("drop_empty_parts(',a,,b,', ',')", "'a,b'")
            .example("drop_empty_parts(',,', ',')", "''")
            .example("drop_empty_parts('a--b', '--')", "'a--b'")
            .done();

    static final FunctionDef IN_LIST = define(Group.LIST, "in_list", same("value"), list("list"))
            .ownNulls()
            .gives(Result.BOOLEAN)
            .about("""
                Whether the value is one of the list; also written `value IN (list)`. Null when the value is null;
                nulls in the list are ignored.\
                """)
            .example("in_list('b', ARRAY['a', 'b'])", "TRUE")
            .example("in_list(3, ARRAY[1, 2])", "FALSE")
            .example("in_list(NULL, ARRAY['a'])", "NULL")
            .done();

    static final FunctionDef LOOKUP = define(
                    Group.LIST, "lookup", same("value"), mapping("mapping"), optional(same("otherwise")))
            .ownNulls()
            .gives(Result.MAPPED)
            .about("""
                What the mapping leads to from the value; `otherwise` where it has none: the value itself, say, to keep
                it, and null when left out. Null when the value is null. Text is compared exactly.\
                """)
            .example("lookup('a', MAP['a', 'x', 'b', 'y'])", "'x'")
            .example("lookup('c', MAP['a', 'x'])", "NULL")
            .example("lookup('c', MAP['a', 'x'], 'c')", "'c'")
            .example("lookup(NULL, MAP['a', 1], 0)", "NULL")
            .done();

    static final FunctionDef REPLACE_EACH = define(Group.LIST, "replace_each", text("text"), mapping("mapping"))
            .about("""
                For each pair of the mapping, in its order, every occurrence of the first becomes the second, as by
                `replace`. A later pair sees what the earlier ones wrote.\
                """)
            .example("replace_each('a&b', MAP['&', ' and '])", "'a and b'")
            .example("replace_each('abc', MAP['a', 'b', 'b', 'c'])", "'ccc'")
            .example("replace_each('&lt;', MAP['&lt;', '<', '&amp;', '&'])", "'<'")
            .done();

    static final FunctionDef REPLACE_UNTIL_SAME = define(
                    Group.LIST,
                    "replace_until_same",
                    text("text"),
                    fixedText("search"),
                    fixedText("replacement"),
                    fixed(integer("most")))
            .about("""
                `replace` again and again until nothing changes, at most `most` times (1 to 12); null when it still
                would change after that, so that no half-done text is taken for the end.\
                """)
            .example("replace_until_same('a----b', '--', '-', 5)", "'a-b'")
            .example("replace_until_same('(((', '((', '(', 2)", "'('")
            .example("replace_until_same('x', 'x', 'xx', 3)", "NULL")
            .done();

    static final List<FunctionDef> ALL = List.of(
            SPLIT_PART,
            PART_COUNT,
            FIRST_PARTS,
            REMOVE_PART,
            DROP_EMPTY_PARTS,
            IN_LIST,
            LOOKUP,
            REPLACE_EACH,
            REPLACE_UNTIL_SAME);
}
