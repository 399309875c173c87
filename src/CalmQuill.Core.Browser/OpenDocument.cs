using CalmQuill.Core.Asides;
using CalmQuill.Core.Changing;
using CalmQuill.Core.Library;
using CalmQuill.Core.Notebooks;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;

namespace CalmQuill.Core.Browser;

/// <summary>The kinds of document behind one face.</summary>
internal interface IOpenDocument
{
    DocumentKind Kind { get; }

    object Core { get; }

    bool Apply(Operation operation);

    byte[] EncodeState();

    List<Operation> Operations();
}

internal sealed class OpenLibrary : IOpenPlaces
{
    private readonly LibraryDocument core = new();
    private Dictionary<Guid, LibraryNode> handedOut = [];

    public DocumentKind Kind => DocumentKind.Library;

    public PlacesPast? Past { get; set; }

    public object Core => core;

    public bool Apply(Operation operation) => core.Apply(operation);

    public byte[] EncodeState() => core.EncodeState();

    public List<Operation> Operations() => core.Operations();

    /// <summary>The nodes that differ from those handed out before, and the ids of those that went.</summary>
    public (List<LibraryNode> Changed, List<Guid> Gone) TakeChanges(bool all)
    {
        var before = all ? [] : handedOut;
        handedOut = core.AllNodes().ToDictionary(node => node.Id);
        return (
            [.. handedOut.Values.Where(node => !before.TryGetValue(node.Id, out var old) || old != node)],
            [.. before.Keys.Where(id => !handedOut.ContainsKey(id))]
        );
    }
}

internal sealed class OpenNotebook : IOpenPlaces
{
    private readonly NotebookDocument core = new();

    private List<NotebookEntry> handedOut = [];

    public DocumentKind Kind => DocumentKind.Notebook;

    public PlacesPast? Past { get; set; }

    /// <summary>How the outline differs from the one handed out before; from nothing where who asks has another number of entries.</summary>
    public OutlineChange TakeOutline(int had)
    {
        var before = had == handedOut.Count ? handedOut : [];
        handedOut = core.Outline();
        var change = OutlineChange.Between(before, handedOut);
        return before.Count == had ? change : change with { Dropped = had };
    }

    public object Core => core;

    public bool Apply(Operation operation) => core.Apply(operation);

    public byte[] EncodeState() => core.EncodeState();

    public List<Operation> Operations() => core.Operations();
}

/// <summary>A page, or an aside.</summary>
internal sealed class OpenPage(DocumentKind kind) : IOpenDocument
{
    private readonly PageDocument core = new();

    public DocumentKind Kind => kind;

    public object Core => core;

    public EraserPass? Eraser { get; set; }

    /// <summary>What is selected, where it is very much; see <see cref="HandBridge.Keep"/>.</summary>
    public (int Number, OpId[] Items) Kept { get; set; } = (0, []);

    /// <summary>Changes that were begun and wait for their turn; see <see cref="PageBridge.GoOn"/>.</summary>
    public LongWork LongWork { get; set; } = new([]);

    /// <summary>The text on it that is being typed into.</summary>
    public TypingHand? Typing { get; set; }

    /// <summary>What is being laid down on it, or was last.</summary>
    public Laying? Laying { get; set; }

    /// <summary>How it is looked at to see who wrote what.</summary>
    public Tinting Tinting { get; } = new();

    /// <summary>Its past while that is open.</summary>
    public Past? Past { get; set; }

    /// <summary>The page as it is seen.</summary>
    public PageDocument Seen => Past is { IsNow: false, Compares: false } past ? past.History.Page : core;

    /// <summary>Of an aside: how it lies over its page.</summary>
    public AsideLay? Lay { get; set; }

    private readonly List<OpId> written = [];

    /// <summary>The things that were put on it here since the last call, and are there.</summary>
    /// <param name="replica">The number that is signed with here.</param>
    public List<PageItem> TakeWritten(ulong replica)
    {
        var taken = written.Where(id => id.Replica == replica).Select(core.Find).OfType<PageItem>().Where(item => item.Shown).ToList();
        written.Clear();
        return taken;
    }

    /// <summary>What shows the page.</summary>
    public Dictionary<int, Surface> Surfaces { get; } = [];

    public bool Apply(Operation operation)
    {
        var isNew = core.Apply(operation);
        if (isNew && Lay is not null && operation.Change is Change.ItemAdded)
            written.Add(operation.Id);
        return isNew;
    }

    public byte[] EncodeState() => core.EncodeState();

    public List<Operation> Operations() => core.Operations();
}
