using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.History;

/// <summary>
/// What brings the things of a library or notebook back to where and how they were: as new changes by whoever has them back. What is in the bin is put back; where
/// a thing lies and what is said of it only where nobody else changed it since. What came since stays.
/// </summary>
public sealed class PlacesBack
{
    /// <summary>What is tried here is no operation of anybody's.</summary>
    private const ulong Replica = 0;

    private readonly IPlaces then,
        trial;
    private readonly DocumentKind kind;
    private readonly Func<Change, bool> may;
    private readonly Guid person;

    /// <summary>What was done to each thing since: whether only by who has it back.</summary>
    private readonly Dictionary<Guid, Dictionary<object, bool>> since = [];
    private readonly List<Change> changes = [];

    private PlacesBack(IPlaces then, IPlaces trial, DocumentKind kind, Guid person, Func<Change, bool> may) =>
        (this.then, this.trial, this.kind, this.person, this.may) = (then, trial, kind, person, may);

    /// <summary>The changes, in their order.</summary>
    public IReadOnlyList<Change> Changes => changes;

    /// <summary>How many things come back or are put back.</summary>
    public int Things { get; private set; }

    /// <summary>How many others changed since, and which are left as they are in that.</summary>
    public int Left { get; private set; }

    /// <summary>How many were erased from the bin or moved elsewhere since.</summary>
    public int Gone { get; private set; }

    /// <param name="history">The library or notebook at the moment that is had back.</param>
    /// <param name="now">As it is.</param>
    /// <param name="wanted">What is had back, each before what lies in it: things that stood then.</param>
    /// <param name="kind">The kind of the document.</param>
    /// <param name="person">Who does it.</param>
    /// <param name="may">Whether a change may be made by them here, beyond the rules that hold for everybody.</param>
    public static PlacesBack Of<T>(
        PlacesHistory<T> history,
        T now,
        IEnumerable<Guid> wanted,
        DocumentKind kind,
        Guid person,
        Func<Change, bool> may
    )
        where T : class, IPlaces, new()
    {
        // What was put back before what follows decides where that can lie.
        var trial = new T();
        foreach (var operation in now.Operations())
            trial.Apply(operation);
        var back = new PlacesBack(history.Then, trial, kind, person, may);
        foreach (var operation in history.Since)
            back.Note(operation);
        foreach (var id in wanted.Where(history.Then.Stands))
            back.Have(id);
        return back;
    }

    /// <summary>What of a thing is where it lies.</summary>
    private static readonly object Place = new();

    private void Note(Operation operation)
    {
        var isOwn = operation.Author == person;
        switch (operation.Change)
        {
            case Change.PageAdded added:
                Note(added.Page, Place, isOwn);
                Note(added.Page, Property.Paper, isOwn);
                break;
            case Change.NodePlaced placed:
                Note(placed.Node, Place, isOwn);
                break;
            case Change.OrdersSet orders:
                foreach (var one in orders.Orders)
                    Note(one.Node, Place, isOwn);
                break;
            case Change.PropertySet set when PlacesComparing.Seen.Contains(set.Property):
                Note(set.Target, set.Property, isOwn);
                break;
            case Change.TagSet tag:
                Note(tag.Target, tag.Tag, isOwn);
                break;
        }
    }

    private void Note(Guid target, object what, bool isOwn)
    {
        if (!since.TryGetValue(target, out var done))
            since[target] = done = [];
        done[what] = isOwn && done.GetValueOrDefault(what, true);
    }

    private void Have(Guid id)
    {
        if (trial.IsAway(id))
        {
            Gone++;
            return;
        }

        var (before, left) = (changes.Count, false);
        if (trial.Read(id, Property.Binned).Length > 0)
            Add(new Change.PropertySet(id, Property.Binned, ""));
        foreach (var (what, isOwn) in since.GetValueOrDefault(id) ?? [])
        {
            if (Restoring(id, what) is not { } change)
                continue;
            if (!isOwn || !Add(change))
                left = true;
        }

        if (!trial.Stands(id))
            PutWhereItIsSeen(id);
        if (changes.Count > before)
            Things++;
        if (left)
            Left++;
    }

    /// <summary>The change that says again what was said of a thing then; null where that is still so.</summary>
    private Change? Restoring(Guid id, object what)
    {
        switch (what)
        {
            case Property property:
                var value = then.Read(id, property);
                return value == trial.Read(id, property) || (value.Length == 0 && !Properties.All[property].MayBeEmptyIn(kind))
                    ? null
                    : new Change.PropertySet(id, property, value);
            case Guid tag:
                return then.Carries(id, tag) == trial.Carries(id, tag) ? null : new Change.TagSet(id, tag, then.Carries(id, tag));
            default:
                var place = then.PlaceOf(id)!.Value;
                var seen = place with { Parent = Nearest(place.Parent, then.Stands) };
                return trial.PlaceOf(id) is { } now && (now == place || now == seen) || !trial.Stands(seen.Parent)
                    ? null
                    : new Change.NodePlaced(id, seen.Kind, seen.Parent, seen.Order);
        }
    }

    /// <summary>What lies in something that is in the bin goes into the nearest that it lay in and that takes it.</summary>
    private void PutWhereItIsSeen(Guid id)
    {
        var place = then.PlaceOf(id)!.Value;
        var holder = Nearest(place.Parent, parent => trial.Stands(parent) && Fits(id, place.Kind, parent));
        Add(new Change.NodePlaced(id, place.Kind, holder, place.Order));
    }

    /// <summary>The nearest of the things that something lay in of which a thing holds; the library or notebook itself where it holds of none.</summary>
    private Guid Nearest(Guid holder, Predicate<Guid> holds)
    {
        for (var steps = 0; steps < PlacedTree.MostSteps && holder != Guid.Empty && !holds(holder); steps++)
            holder = then.PlaceOf(holder)?.Parent ?? Guid.Empty;
        return holder;
    }

    private bool Fits(Guid id, NodeKind what, Guid parent) => !trial.WouldCycle(id, parent) && trial.MayLieIn(what, parent);

    /// <summary>Makes a change, where it may be made and would do something.</summary>
    private bool Add(Change change)
    {
        if (change is Change.NodePlaced placed && !Fits(placed.Node, placed.NodeKind, placed.Parent))
            return false;
        if (!may(change))
            return false;
        changes.Add(change);
        trial.Apply(new Operation(new OpId(Replica, (ulong)changes.Count), Latest, person, change));
        return true;
    }

    /// <summary>After all that was done: nothing is made later than that on a device whose clock is right.</summary>
    private static readonly Hlc Latest = new(ulong.MaxValue);
}
