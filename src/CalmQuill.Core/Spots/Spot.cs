using CalmQuill.Core.Ink;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Spots;

/// <summary>A mark, link or heading as a page shows it.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Kind">What it is for.</param>
/// <param name="Area">Where it is: around the ink it was put on, as that now lies, else where it was put; 0.01 mm.</param>
/// <param name="Items">The ink it was put on; may be empty.</param>
/// <param name="Values">What is said of it, by field; empty fields are left out.</param>
/// <param name="CreatedAt">When it was made, UTC milliseconds since 1970.</param>
/// <param name="Author">Who made it.</param>
/// <param name="DoneAt">When it was ticked off; null while it is open.</param>
/// <param name="DoneBy">Who ticked it off.</param>
/// <param name="Answers">What was said to it, in its order.</param>
public sealed record Spot(
    Guid Id,
    SpotKind Kind,
    Box Area,
    IReadOnlyList<OpId> Items,
    IReadOnlyDictionary<SpotField, string> Values,
    long CreatedAt,
    Guid Author,
    long? DoneAt,
    Guid DoneBy,
    IReadOnlyList<Answer> Answers
)
{
    /// <summary>Where it is typed as a box to be ticked; null where somebody put it there as a sign of its own.</summary>
    public TaskPlace? Task { get; init; }

    public string this[SpotField field] => Values.TryGetValue(field, out var value) ? value : "";

    /// <summary>Whether somebody else than who put it there said something to it.</summary>
    public bool IsAnswered => Answers.Any(answer => answer.Author != Author);

    /// <summary>Whether it waits for somebody.</summary>
    public bool IsOpen => Kind == SpotKind.Mark && DoneAt is null && MarkKinds.CanBeDone(this[SpotField.Mark]);
}
