package fixshelf.work;

import fixshelf.plan.TableExample;
import fixshelf.shelf.TableFixPage;
import fixshelf.shelf.TablePromise;
import java.util.Optional;

/// What came of a promise of a table fix: kept on so many tables, or broken by a smallest one.
///
/// @param tables how many made-up tables the fix took
/// @param refused how many made-up tables it stopped at
/// @param broken the smallest table that breaks it, with the call, and what comes out of it
/// @param detail what is wrong with that
/// @param impossible why it cannot be tried, where it cannot
public record TablePromiseResult(
        TableFixPage page,
        TablePromise promise,
        int tables,
        int refused,
        Optional<TableExample> broken,
        String detail,
        Optional<String> impossible) {
    public boolean holds() {
        return broken.isEmpty() && impossible.isEmpty();
    }

    public String sentence() {
        if (impossible.isPresent()) {
            return promise.sentence() + ": " + impossible.get();
        }
        if (broken.isPresent()) {
            int rows = broken.get().given().rows().size();
            return promise.sentence() + ", but of a table with " + rows + (rows == 1 ? " row " : " rows ") + detail;
        }
        if (promise.kind() == TablePromise.Kind.ROWS_ONCE) {
            return promise.sentence() + ", by what its lines are";
        }
        return promise.sentence() + ", on " + tables + " made-up tables"
                + (refused == 0 ? "" : "; it stops at " + refused);
    }
}
