using CalmQuill.Core.History;
using CalmQuill.Store.Locks;

namespace CalmQuill.Store.History;

/// <summary>What somebody did to something within a quarter of an hour.</summary>
/// <param name="Person">Who.</param>
/// <param name="Name">What they are called.</param>
/// <param name="Colour">Their colour.</param>
/// <param name="Kind">The kind of the document it was done in: 1 library, 2 notebook, 3 page.</param>
/// <param name="Target">The page, section, notebook or folder.</param>
/// <param name="Notebook">The notebook it is in, or is; the empty id of a folder.</param>
/// <param name="Title">What it is called.</param>
/// <param name="Number">Of a page its number, else 0.</param>
/// <param name="IsInBin">Whether it is in the bin now.</param>
/// <param name="Deed">What was done.</param>
/// <param name="Things">To how many things.</param>
/// <param name="At">When last, UTC milliseconds since 1970.</param>
public sealed record ShownDeed(
    Guid Person,
    string Name,
    string Colour,
    int Kind,
    Guid Target,
    Guid Notebook,
    string Title,
    int Number,
    bool IsInBin,
    Deed Deed,
    long Things,
    long At
);

/// <summary>Reads what happened, the latest first. What is in a notebook that is shut is left out, and so is what is no longer there.</summary>
public sealed class DeedStore(Database database)
{
    /// <summary>How many lines are given at once.</summary>
    public const int Most = 1_000;

    /// <param name="space">The library.</param>
    /// <param name="notebook">Only what was done in or to this notebook; null for all of the library.</param>
    /// <param name="page">Only what was done on or to this page.</param>
    /// <param name="isGuest">Whether whoever asks sees the notebook alone, and not the library around it.</param>
    /// <param name="before">Only what was done before this time, UTC milliseconds.</param>
    /// <param name="locked">Notebooks of which nothing is told.</param>
    /// <param name="cancel">Gives up.</param>
    public Task<List<ShownDeed>> Of(
        Guid space,
        Guid? notebook,
        Guid? page,
        bool isGuest,
        long before,
        IReadOnlyList<NotebookRef> locked,
        CancellationToken cancel
    ) =>
        database
            .Command(
                $"""
                SELECT p.id, p.name, p.colour, d.kind, d.target, t.notebook, t.title, t.number, t.in_bin, d.deed, d.things, d.at
                FROM deeds d
                JOIN people p ON p.id = d.person_id
                JOIN LATERAL (
                    SELECT e.notebook_id AS notebook, e.title, e.number, e.in_bin OR n.in_bin AS in_bin
                    FROM notebook_entries e
                    JOIN library_nodes n ON n.space_id = e.space_id AND n.id = e.notebook_id
                    LEFT JOIN page_homes h ON h.space_id = e.space_id AND h.page_id = e.id
                    WHERE d.kind > 1 AND e.space_id = d.space_id AND e.id = d.target AND (h.notebook_id IS NULL OR h.notebook_id = e.notebook_id)
                    UNION ALL
                    SELECT CASE WHEN n.kind = 2 THEN n.id ELSE '{Guid.Empty}' END, n.name, 0, n.in_bin
                    FROM library_nodes n
                    WHERE d.kind = 1 AND NOT @guest AND n.space_id = d.space_id AND n.id = d.target AND n.kind IN (1, 2)
                ) t ON true
                WHERE d.space_id = @space AND d.at < @before
                    AND (@notebook::uuid IS NULL OR t.notebook = @notebook) AND (@page::uuid IS NULL OR d.target = @page)
                    AND (d.space_id, t.notebook) NOT IN (SELECT * FROM unnest(@lockedSpaces, @locked))
                ORDER BY d.at DESC, d.target, d.deed
                LIMIT {Most}
                """
            )
            .With(
                ("space", space),
                ("notebook", notebook),
                ("page", page),
                ("guest", isGuest),
                ("before", before),
                ("lockedSpaces", locked.Select(one => one.Space).ToArray()),
                ("locked", locked.Select(one => one.Notebook).ToArray())
            )
            .Rows(
                row => new ShownDeed(
                    row.GetGuid(0),
                    row.GetString(1),
                    row.GetString(2),
                    row.GetInt16(3),
                    row.GetGuid(4),
                    row.GetGuid(5),
                    row.GetString(6),
                    row.GetInt32(7),
                    row.GetBoolean(8),
                    (Deed)row.GetInt16(9),
                    row.GetInt64(10),
                    row.GetInt64(11)
                ),
                cancel
            );
}
