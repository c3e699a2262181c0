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

/// Regular expressions of the portable subset that [fixshelf.language.pattern.Regex] describes.
public final class PatternFunctions {
    private PatternFunctions() {}

    public static final FunctionDef REGEXP_REPLACE = define(
                    Group.PATTERN, "regexp_replace", text("text"), fixedText("pattern"), fixedText("replacement"))
            .about("""
                Every match of `pattern`, from the left, becomes `replacement`, in which `\\1` to `\\9` stand for
                the groups, `\\0` for the whole match and `\\\\` for a backslash. No match: unchanged. The pattern
                must not be able to match the empty text.\
                """)
            .example("regexp_replace('a   b c', ' +', ' ')", "'a b c'")
            .example("regexp_replace(',a,b', '^,', '')", "'a,b'")
            .example("regexp_replace('neil-o', '([a-z]+)-([a-z]+)', '\\2-\\1')", "'o-neil'")
            .example("regexp_replace('a1', '[0-9]', '$&\\\\')", "'a$&\\'")
            .example("regexp_replace('abc', 'x', '-')", "'abc'")
            .example("regexp_replace('ab1', '[a-z]b', '\\00')", "'ab01'")
            .done();

    public static final FunctionDef REGEXP_LIKE = define(
                    Group.PATTERN, "regexp_like", text("text"), fixedText("pattern"))
            .aliases("regexp_matches")
            .gives(Result.BOOLEAN)
            .about("Whether `pattern` matches anywhere in the text.")
            .example("regexp_like('ab1', '[0-9]')", "TRUE")
            .example("regexp_like('ab', '^b')", "FALSE")
            .example("regexp_like(U&'\\212A\\017F', '[kK]|[sS]')", "FALSE")
            .example("regexp_like(U&'\\212A\\017F', '(?i)k|s')", "FALSE")
            .example("regexp_like(U&'a\\000A', 'a$')", "FALSE")
            .done();

    public static final FunctionDef REGEXP_EXTRACT = define(
                    Group.PATTERN,
                    "regexp_extract",
                    text("text"),
                    fixedText("pattern"),
                    optional(fixed(integer("group"))))
            .aliases("regexp_substr")
            .about("""
                The first match of `pattern`, or of its group number `group`. Null when the pattern does not
                match; the empty text when the group matched nothing.\
                """)
            .example("regexp_extract('rate:4/5', 'rate:([0-9]+)/', 1)", "'4'")
            .example("regexp_extract('a12b3', '[0-9]+')", "'12'")
            .example("regexp_extract('abc', '[0-9]+')", "NULL")
            .done();

    static final List<FunctionDef> ALL = List.of(REGEXP_REPLACE, REGEXP_LIKE, REGEXP_EXTRACT);
}
