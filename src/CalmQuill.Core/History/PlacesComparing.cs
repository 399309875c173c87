using CalmQuill.Core.Operations;

namespace CalmQuill.Core.History;

/// <summary>What became of a folder, notebook, section or page between two moments.</summary>
public enum PlaceDifference
{
    /// <summary>It is seen at neither, or alike at both.</summary>
    None,

    /// <summary>It is seen only now.</summary>
    Came,

    /// <summary>It was seen only then, and is in the bin now.</summary>
    Binned,

    /// <summary>It was seen only then, and was erased or moved elsewhere since.</summary>
    Gone,

    /// <summary>It lies elsewhere, is called or looks otherwise.</summary>
    Changed,
}

/// <summary>Compares a library or notebook then and now.</summary>
public static class PlacesComparing
{
    /// <summary>What is said of a thing that one sees.</summary>
    internal static readonly Property[] Seen = [Property.Name, Property.Paper, Property.Colour, Property.Cover, Property.Icon];

    /// <summary>What became of a thing.</summary>
    public static PlaceDifference Of(IPlaces then, IPlaces now, Guid id)
    {
        bool was = id != Guid.Empty && then.Stands(id),
            stands = id != Guid.Empty && now.Stands(id);
        if (was != stands)
            return stands ? PlaceDifference.Came
                : now.IsAway(id) ? PlaceDifference.Gone
                : PlaceDifference.Binned;
        return was && (then.PlaceOf(id) != now.PlaceOf(id) || Seen.Any(property => then.Read(id, property) != now.Read(id, property)))
            ? PlaceDifference.Changed
            : PlaceDifference.None;
    }
}
