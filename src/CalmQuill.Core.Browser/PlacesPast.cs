using CalmQuill.Core.History;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;

namespace CalmQuill.Core.Browser;

/// <summary>A notebook or library that is open, with its past while somebody looks at it.</summary>
internal interface IOpenPlaces : IOpenDocument
{
    PlacesPast? Past { get; set; }
}

/// <summary>A notebook or library that is looked at as it was.</summary>
internal abstract class PlacesPast
{
    public static PlacesPast Of(object core) =>
        core switch
        {
            NotebookDocument notebook => new PlacesPast<NotebookDocument>(notebook),
            LibraryDocument library => new PlacesPast<LibraryDocument>(library),
            _ => throw new InvalidOperationException("Only notebooks and libraries have a past of places."),
        };

    /// <summary>As it was at the moment.</summary>
    public abstract IPlaces Then { get; }

    /// <inheritdoc cref="PlacesHistory{T}.MoveTo"/>
    public abstract int MoveTo(long time, int most);

    /// <inheritdoc cref="PlacesBack.Of"/>
    public abstract PlacesBack Back(IEnumerable<Guid> wanted, DocumentKind kind, Guid person, Func<Change, bool> may);
}

/// <inheritdoc cref="PlacesPast"/>
internal sealed class PlacesPast<T>(T now) : PlacesPast
    where T : class, IPlaces, new()
{
    private long time;

    public PlacesHistory<T> History { get; private set; } = new(now);

    public override IPlaces Then => History.Then;

    public override int MoveTo(long time, int most) => History.MoveTo(this.time = time, most);

    /// <summary>What came since it was opened counts as done since.</summary>
    public override PlacesBack Back(IEnumerable<Guid> wanted, DocumentKind kind, Guid person, Func<Change, bool> may)
    {
        History = PlacesHistory<T>.Of(now, time);
        return PlacesBack.Of(History, now, wanted, kind, person, may);
    }
}
