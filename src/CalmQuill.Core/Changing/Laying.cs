using CalmQuill.Core.Items;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Changing;

/// <summary>A piece of a page being laid down, change by change, so that much of it can be laid in slices and given up on the way.</summary>
public sealed class Laying
{
    /// <summary>The most that is laid down at once.</summary>
    public const int MostChanges = 50_000;

    private readonly List<Operation> piece;
    private readonly Dictionary<OpId, OpId> copies = [];
    private readonly List<OpId> items = [],
        steps = [];
    private readonly int dx,
        dy;
    private readonly Guid? layer;
    private int next;

    /// <param name="piece">A piece, as <see cref="Cutting.Of"/> makes it.</param>
    /// <param name="dx">How far right of where it was cut, 0.01 mm.</param>
    /// <param name="dy">How far below.</param>
    /// <param name="layer">The layer it is laid on.</param>
    /// <exception cref="OperationFormatException">The bytes are not a piece, or hold too much; nothing is laid then.</exception>
    public Laying(ReadOnlySpan<byte> piece, int dx, int dy, Guid layer)
    {
        (this.piece, this.dx, this.dy, this.layer) = (OperationCodec.Decode(piece), dx, dy, layer);
        if (Count > MostChanges)
            throw new OperationFormatException($"At most {MostChanges:N0} things can be laid down at once.");
        if (this.piece.Exists(operation => operation.Change is not (Change.ItemAdded or Change.GapsAdded or Change.ItemsSet)))
            throw new OperationFormatException($"This is not a piece of a page.");
    }

    /// <summary>Things laid down as and where they lie, each on its own layer, together with changes to what is there.</summary>
    /// <param name="piece">The changes, in their order; what they name by an id of the piece is what that one added.</param>
    public Laying(List<Operation> piece)
        : this(piece, 0, 0, null) { }

    private Laying(List<Operation> piece, int dx, int dy, Guid? layer) =>
        (this.piece, this.dx, this.dy, this.layer) = (piece, dx, dy, layer);

    /// <summary>How many changes it takes.</summary>
    public int Count => piece.Count;

    /// <summary>How many were made.</summary>
    public int Done => next;

    /// <summary>The new items, in the order in which they are painted.</summary>
    public IReadOnlyList<OpId> Items => items;

    /// <summary>All operations that were made: one step for undo, once they are joined.</summary>
    public IReadOnlyList<OpId> Steps => steps;

    /// <summary>What takes all that was made back, the last of it first.</summary>
    public IEnumerable<Change> Back => steps.AsEnumerable().Reverse().Select(step => new Change.EffectSet(step, false));

    /// <summary>Goes through all the changes without making any, so that a piece that cannot be laid whole is not laid half.</summary>
    /// <param name="check">Throws when a change may not be made.</param>
    /// <exception cref="InvalidOperationException">The piece hangs together wrongly, or <paramref name="check"/> threw it.</exception>
    public void Try(Action<Change> check)
    {
        var trial = new Laying(piece, dx, dy, layer);
        OpId Tried(Change change)
        {
            check(change);
            return new OpId(1, (ulong)trial.next);
        }

        while (trial.Next(Tried)) { }
    }

    /// <summary>Makes the next change; false when all is laid down.</summary>
    /// <param name="make">Makes an operation of a change and says its id.</param>
    public bool Next(Func<Change, OpId> make)
    {
        if (next == piece.Count)
            return false;
        var operation = piece[next++];
        var made = make(
            operation.Change switch
            {
                Change.ItemAdded added => added.Copied(dx, dy).Naming(Laid) with { Layer = layer ?? added.Layer },
                Change.GapsAdded gaps => gaps with
                {
                    Strokes =
                    [
                        .. gaps
                            .Strokes.Where(stroke => copies.ContainsKey(stroke.Stroke))
                            .Select(stroke => stroke with { Stroke = copies[stroke.Stroke] }),
                    ],
                },
                Change.ItemsSet set when set.Items.Any(copies.ContainsKey) => new Change.ItemsSet(
                    [.. set.Items.Where(copies.ContainsKey).Select(id => copies[id])],
                    [
                        .. set.Values.Select(value =>
                            value.Field == ItemField.Group ? new ItemValue(ItemField.Group, GroupOf(set)) : value.Naming(Laid)
                        ),
                    ]
                ),
                Change.SpotAdded spot => spot with { Items = [.. spot.Items.Select(Laid)] },
                var change => change,
            }
        );
        steps.Add(made);
        if (operation.Change is Change.ItemAdded)
        {
            copies[operation.Id] = made;
            items.Add(made);
        }

        return true;
    }

    /// <summary>What something of the piece is called now that it is laid down; what is on the page keeps its name.</summary>
    private OpId Laid(OpId id) => copies.GetValueOrDefault(id, id);

    private string GroupOf(Change.ItemsSet set)
    {
        var first = copies[set.Items.First(copies.ContainsKey)];
        return new Guid(
            (int)(first.Counter >> 32),
            (short)(first.Counter >> 16),
            (short)first.Counter,
            BitConverter.GetBytes(first.Replica)
        ).ToString();
    }
}
