using CalmQuill.Core.Changing;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.History;

/// <summary>A library or notebook: things in a tree, with what is said of them.</summary>
public interface IPlaces : IStanding
{
    /// <summary>Takes an operation in. False when it was here already, or is of no use here.</summary>
    bool Apply(Operation operation);

    /// <summary>All that was done, in the order of the stamps.</summary>
    List<Operation> Operations();

    /// <summary>Whether a thing itself was erased from the bin, or moved to another notebook.</summary>
    bool IsGone(Guid id);

    /// <summary>Whether putting a thing into a parent would make it its own ancestor.</summary>
    bool WouldCycle(Guid node, Guid parent);

    /// <summary>Whether a thing of a kind may lie in a parent.</summary>
    bool MayLieIn(NodeKind kind, Guid parent);
}

/// <summary>What holds of a thing together with all that it lies in.</summary>
public static class PlacesStanding
{
    /// <summary>Whether a thing is seen where it lies: it was put somewhere, and neither it nor anything it lies in is in the bin or gone.</summary>
    public static bool Stands(this IPlaces places, Guid id) => id == Guid.Empty || places.At(id) is Standing.Seen;

    /// <summary>Whether it can be put back by nothing any more.</summary>
    public static bool IsAway(this IPlaces places, Guid id) => places.At(id) is Standing.Away;

    private enum Standing
    {
        Seen,
        InBin,
        Away,
    }

    private static Standing At(this IPlaces places, Guid id)
    {
        if (places.PlaceOf(id) is not { } place || places.IsGone(id))
            return Standing.Away;
        var isBinned = places.Read(id, Property.Binned).Length > 0;
        var at = place.Parent;
        for (var steps = 0; steps < PlacedTree.MostSteps && places.PlaceOf(at) is { } holder; steps++, at = holder.Parent)
        {
            // What lay in something that was erased alone stands in its place; once, all that lay in a thing went with it.
            if (Properties.Erased.Read(places.Read(at, Property.Erased)) is Erasing.WithAllInIt)
                return Standing.Away;
            isBinned |= !places.IsGone(at) && places.Read(at, Property.Binned).Length > 0;
        }

        return isBinned ? Standing.InBin : Standing.Seen;
    }
}
