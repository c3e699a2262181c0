package fixshelf.language.catalogue;

import static fixshelf.language.catalogue.Entry.date;
import static fixshelf.language.catalogue.Entry.define;
import static fixshelf.language.catalogue.Entry.fixed;
import static fixshelf.language.catalogue.Entry.fixedText;
import static fixshelf.language.catalogue.Entry.integer;
import static fixshelf.language.catalogue.Entry.list;
import static fixshelf.language.catalogue.Entry.mapping;
import static fixshelf.language.catalogue.Entry.optional;
import static fixshelf.language.catalogue.Entry.same;
import static fixshelf.language.catalogue.Entry.text;

import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.FunctionDef.Group;
import fixshelf.language.tree.FunctionDef.Result;
import java.util.List;

/// Lists and mappings, which are known when code is written.
public final class ListFunctions {
    private ListFunctions() {}

    public static final FunctionDef IN_LIST = define(Group.LIST, "in_list", same("value"), list("list"))
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

    public static final FunctionDef DATE_RANGE = define(
                    Group.LIST, "date_range", fixed(date("first")), fixed(date("last")))
            .gives(Result.DATES)
            .about("""
                The list of all days from `first` to `last`, both of them in it; empty when `last` is before `first`. At
                most 10,000 days. For `IN`, and as holidays.\
                """)
            .example("DATE '2026-12-24' IN (date_range(DATE '2026-12-20', DATE '2026-12-31'))", "TRUE")
            .example("DATE '2027-01-01' IN (date_range(DATE '2026-12-20', DATE '2026-12-31'))", "FALSE")
            .example(
                    "working_days(DATE '2026-12-18', DATE '2027-01-04',"
                            + " date_range(DATE '2026-12-24', DATE '2027-01-01'))",
                    "5")
            .done();

    static final FunctionDef IS_KEY = define(Group.LIST, "is_key", same("value"), mapping("mapping"))
            .ownNulls()
            .gives(Result.BOOLEAN)
            .about("""
                Whether the mapping leads anywhere from the value: false for what `lookup` would not find. Null when
                the value is null.\
                """)
            .example("is_key('a', MAP['a', 'x', 'b', 'y'])", "TRUE")
            .example("is_key('A', MAP['a', 'x'])", "FALSE")
            .example("is_key(NULL, MAP['a', 'x'])", "NULL")
            .done();

    public static final FunctionDef LOOKUP = define(
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

    public static final FunctionDef REPLACE_UNTIL_SAME = define(
                    Group.LIST,
                    "replace_until_same",
                    text("text"),
                    fixedText("search"),
                    fixedText("replacement"),
                    fixed(integer("most")))
            .about("""
                `replace` again and again until nothing changes, at most `most` times (1 to 12); null when it still
                would change after that, so that no half-done text is taken for the end. A line of a job reports the rows in which that happens,
                apart from what is missing for another cause, and `try` names it as a problem.\
                """)
            .example("replace_until_same('a----b', '--', '-', 5)", "'a-b'")
            .example("replace_until_same('(((', '((', '(', 2)", "'('")
            .example("replace_until_same('x', 'x', 'xx', 3)", "NULL")
            .done();

    static final List<FunctionDef> ALL = List.of(IN_LIST, DATE_RANGE, IS_KEY, LOOKUP, REPLACE_EACH, REPLACE_UNTIL_SAME);
}
