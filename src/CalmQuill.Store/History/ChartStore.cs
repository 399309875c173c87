using CalmQuill.Core.History;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Locks;
using Npgsql;

namespace CalmQuill.Store.History;

/// <summary>What is asked of a library: all of it, one notebook, or one folder with all that lies in it now.</summary>
/// <param name="Space">The library.</param>
/// <param name="Notebook">The notebook; null for none in particular.</param>
/// <param name="Folder">The folder; null for none in particular.</param>
/// <param name="IsGuest">Whether whoever asks sees the notebook alone, and not the library around it.</param>
public sealed record Within(Guid Space, Guid? Notebook, Guid? Folder, bool IsGuest);

/// <summary>How a page stood at a time.</summary>
/// <param name="Page">The page.</param>
/// <param name="Sequence">The number of its last operation now.</param>
/// <param name="Until">
/// A time, UTC milliseconds since 1970, by which the page stood as it did at the time that was asked for, the same for as long as nothing was done to it; null where it stands
/// so now.
/// </param>
public sealed record PageThen(Guid Page, long Sequence, long? Until);

/// <summary>The past of notebooks and folders as it is drawn and gone along: when something was done, and by whom.</summary>
public sealed class ChartStore(Database database)
{
    /// <summary>The bar of time of a notebook, a folder or a library. What is in a notebook that is shut is not on it.</summary>
    public async Task<Chart> Of(Within within, IReadOnlyList<NotebookRef> locked, CancellationToken cancel)
    {
        const string pages = """
            SELECT k.kind, e.id, e.notebook_id AS notebook
            FROM notebook_entries e
            CROSS JOIN (VALUES (2::smallint), (3::smallint)) AS k (kind)
            LEFT JOIN page_homes h ON h.space_id = e.space_id AND h.page_id = e.id
            WHERE e.space_id = @space AND (h.notebook_id IS NULL OR h.notebook_id = e.notebook_id)
            """;
        // A folder lies in none that lies in it, but two moves at once can come to that while they are on their way: UNION ends there.
        var sql = $"""
            WITH RECURSIVE inside (id) AS (
                SELECT @folder::uuid
                UNION
                SELECT n.id FROM library_nodes n JOIN inside i ON n.parent = i.id WHERE n.space_id = @space AND n.kind IN (1, 2)
            ), things AS (
                SELECT 1::smallint AS kind, n.id, n.id AS notebook FROM library_nodes n WHERE n.space_id = @space AND n.kind IN (1, 2) AND NOT @guest
                UNION ALL {pages}
            )
            SELECT d.quarter, d.person_id, d.deed, sum(d.things)::bigint, max(d.at)
            FROM things t JOIN deeds d ON d.space_id = @space AND d.kind = t.kind AND d.target = t.id
            WHERE (@notebook::uuid IS NULL OR t.notebook = @notebook) AND (@folder::uuid IS NULL OR t.notebook IN (SELECT id FROM inside))
                AND (@space, t.notebook) NOT IN (SELECT * FROM unnest(@lockedSpaces, @locked))
            GROUP BY 1, 2, 3
            ORDER BY 1, 5
            """;
        var entries = await database
            .Command(sql)
            .With(
                ("space", within.Space),
                ("notebook", within.Notebook),
                ("folder", within.Folder),
                ("guest", within.IsGuest),
                ("lockedSpaces", locked.Select(one => one.Space).ToArray()),
                ("locked", locked.Select(one => one.Notebook).ToArray())
            )
            .Rows(
                row => new Chart.Entry(row.GetInt64(4), row.GetGuid(1), (Deed)row.GetInt16(2), row.GetInt64(3))
                {
                    // What was received late is told of an earlier quarter, what a fast clock made at the latest of when it came.
                    From = Math.Min(row.GetInt32(0) * Chronicle.Quarter, row.GetInt64(4)),
                },
                cancel
            );
        return Chart.Of(entries);
    }

    /// <summary>How the pages that are at home in a notebook stood at a time, UTC milliseconds since 1970.</summary>
    public Task<List<PageThen>> Pages(Guid space, Guid notebook, long at, CancellationToken cancel) =>
        database
            .Command(
                """
                SELECT e.id, coalesce(c.last_seq, 0), d.later, d.last
                FROM notebook_entries e
                LEFT JOIN page_homes h ON h.space_id = e.space_id AND h.page_id = e.id
                LEFT JOIN documents c ON c.space_id = e.space_id AND c.kind = 3 AND c.id = e.id
                LEFT JOIN LATERAL (
                    SELECT bool_or(d.at > @at) AS later, max(d.quarter) FILTER (WHERE d.quarter <= @quarter) AS last
                    FROM deeds d WHERE d.space_id = e.space_id AND d.kind = 3 AND d.target = e.id
                ) d ON true
                WHERE e.space_id = @space AND e.notebook_id = @notebook AND e.kind = 4 AND (h.notebook_id IS NULL OR h.notebook_id = @notebook)
                """
            )
            .With(
                ("space", space),
                ("notebook", notebook),
                ("at", at),
                ("quarter", (int)Math.Clamp(at / Chronicle.Quarter, 0, int.MaxValue))
            )
            .Rows(row => new PageThen(row.GetGuid(0), row.GetInt64(1), Until(row, at)), cancel);

    private static long? Until(NpgsqlDataReader row, long at)
    {
        if (row.IsDBNull(2) || !row.GetBoolean(2))
            return null;
        // The clock of a device may be ahead of the time at which it is told of.
        var end = row.IsDBNull(3) ? 0 : (row.GetInt32(3) + 1) * Chronicle.Quarter + OperationRules.MostAhead;
        return Math.Min(at, end);
    }
}
