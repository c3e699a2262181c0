package fixshelf.language.catalogue;

import static fixshelf.language.catalogue.Entry.define;
import static fixshelf.language.catalogue.Entry.same;

import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.FunctionDef.Group;
import fixshelf.language.tree.FunctionDef.Result;
import fixshelf.language.tree.FunctionDef.Slot;
import fixshelf.language.tree.FunctionDef.Wants;
import java.util.List;

/// Missing values.
public final class NullFunctions {
    private NullFunctions() {}

    public static final FunctionDef COALESCE = define(Group.NULL, "coalesce", same("first"), same("next"))
            .repeatsLast()
            .ownNulls()
            .gives(Result.SAME)
            .about("The first value that is not null; null when all are.")
            .example("coalesce(NULL, 'a', 'b')", "'a'")
            .example("coalesce(NULL, NULL)", "NULL")
            .example("coalesce('', 'a')", "''")
            .done();

    static final FunctionDef NULLIF = define(Group.NULL, "nullif", same("value"), same("unwanted"))
            .ownNulls()
            .gives(Result.SAME)
            .about("Null when the two are equal, otherwise `value`.")
            .example("nullif('n/a', 'n/a')", "NULL")
            .example("nullif(' ', '')", "' '")
            .example("nullif('a', NULL)", "'a'")
            .done();

    public static final FunctionDef IS_NULL = define(Group.NULL, "IS NULL", new Slot("value", Wants.ANY, false, false))
            .ownNulls()
            .gives(Result.BOOLEAN)
            .about("Whether the value is missing; never null.")
            .example("NULL IS NULL", "TRUE")
            .example("'' IS NULL", "FALSE")
            .example("'a' IS NOT NULL", "TRUE")
            .done();

    static final List<FunctionDef> ALL = List.of(COALESCE, NULLIF, IS_NULL);
}
