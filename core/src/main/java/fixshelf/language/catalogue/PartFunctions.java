package fixshelf.language.catalogue;

import static fixshelf.language.catalogue.Entry.define;
import static fixshelf.language.catalogue.Entry.fixed;
import static fixshelf.language.catalogue.Entry.fixedText;
import static fixshelf.language.catalogue.Entry.integer;
import static fixshelf.language.catalogue.Entry.list;
import static fixshelf.language.catalogue.Entry.text;

import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.FunctionDef.Group;
import fixshelf.language.tree.FunctionDef.Result;
import java.util.List;

/// Separated text as a list of its parts.
public final class PartFunctions {
    private PartFunctions() {}

    public static final FunctionDef SPLIT_PART = define(
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

    public static final FunctionDef FIRST_PARTS = define(
                    Group.LIST, "first_parts", text("text"), fixedText("separator"), fixed(integer("count")))
            .about("""
                The first `count` parts with the separators between them; all of them when there are fewer. The
                separator is one character.\
                """)
            .example("first_parts('a,b,c,d', ',', 2)", "'a,b'")
            .example("first_parts('a,b', ',', 5)", "'a,b'")
            .example("first_parts(',b,c', ',', 2)", "',b'")
            .done();

    public static final FunctionDef REMOVE_PART = define(
                    Group.LIST, "remove_part", text("text"), fixedText("separator"), fixedText("part"))
            .about("""
                Without the parts that are exactly `part`, and without their separators; parts that only begin or end
                so stay. The empty text when no part is left. `part` is not empty. U+FDD0, which Unicode reserves,
                may be taken for the separator.\
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

    public static final FunctionDef SKIP_PARTS = define(
                    Group.LIST, "skip_parts", text("text"), fixedText("separator"), fixed(integer("count")))
            .about("""
                Without the first `count` parts and their separators; the empty text when there are not more. The
                separator is one character.\
                """)
            .example("skip_parts('a,b,c,d', ',', 2)", "'c,d'")
            .example("skip_parts('a,b', ',', 5)", "''")
            .example("skip_parts(',b,c', ',', 1)", "'b,c'")
            .done();

    public static final FunctionDef SKIP_PARTS_IN = define(
                    Group.LIST, "skip_parts_in", text("text"), fixedText("separator"), list("parts"))
            .about("""
                Without the parts at the beginning that are in the list, up to the first that is not; later ones stay.
                The empty text in the list stands for empty parts. The separator is one character; the list is of text,
                and not empty.\
                """)
            .example("skip_parts_in('-,,-,a,-,b', ',', ARRAY['-', ''])", "'a,-,b'")
            .example("skip_parts_in('a,-', ',', ARRAY['-'])", "'a,-'")
            .example("skip_parts_in('-,-', ',', ARRAY['-'])", "''")
            .done();

    public static final FunctionDef REMOVE_PARTS = define(
                    Group.LIST, "remove_parts", text("text"), fixedText("separator"), list("parts"))
            .about("""
                Without the parts that are in the list, as by `remove_part` for each of them: the difference of the two
                lists. The list is of text, without the empty one, and not empty.\
                """)
            .example("remove_parts('a,zz,b,yy', ',', ARRAY['zz', 'yy'])", "'a,b'")
            .example("remove_parts('azz,zz', ',', ARRAY['zz'])", "'azz'")
            .example("remove_parts('zz,yy', ',', ARRAY['yy', 'zz'])", "''")
            .done();

    public static final FunctionDef KEEP_PARTS = define(
                    Group.LIST, "keep_parts", text("text"), fixedText("separator"), list("parts"))
            .about("""
                Only the parts that are in the list, in the order of the text and as often as they come. The separator
                is one character; the list is of text, and not empty.\
                """)
            .example("keep_parts('lamp,tea,radio,lamp', ',', ARRAY['radio', 'lamp'])", "'lamp,radio,lamp'")
            .example("keep_parts('lamps,lam,lamp', ',', ARRAY['lamp'])", "'lamp'")
            .example("keep_parts('tea', ',', ARRAY['lamp'])", "''")
            .example("keep_parts(',tea,,lamp,', ',', ARRAY['lamp', ''])", "',,lamp,'")
            .done();

    static final FunctionDef SORT_PARTS = define(Group.LIST, "sort_parts", text("text"), fixedText("separator"))
            .about("""
                The parts in the order of their code points, capitals before small letters, so that two lists with the
                same parts become the same text. Nothing is added or taken away.\
                """)
            .example("sort_parts('radio,Lamp,lamp', ',')", "'Lamp,lamp,radio'")
            .example("sort_parts('b;;a', ';')", "';a;b'")
            .example("sort_parts('10, 9', ', ')", "'10, 9'")
            .done();

    static final FunctionDef UNIQUE_PARTS = define(Group.LIST, "unique_parts", text("text"), fixedText("separator"))
            .about("""
                Each part once, where it first stands. Parts are compared exactly, so `lamp`, `Lamp` and ` lamp` are
                three; empty ones count as well.\
                """)
            .example("unique_parts('lamp,tea,lamp', ',')", "'lamp,tea'")
            .example("unique_parts('a,A,a ', ',')", "'a,A,a '")
            .example("unique_parts(',,b,', ',')", "',b'")
            .done();

    static final List<FunctionDef> ALL = List.of(
            SPLIT_PART,
            PART_COUNT,
            FIRST_PARTS,
            SKIP_PARTS,
            SKIP_PARTS_IN,
            REMOVE_PART,
            REMOVE_PARTS,
            KEEP_PARTS,
            DROP_EMPTY_PARTS,
            SORT_PARTS,
            UNIQUE_PARTS);
}
