using UglyToad.PdfPig;
using UglyToad.PdfPig.Core;
using UglyToad.PdfPig.Tokens;

namespace CalmQuill.Documents.Pdf;

/// <summary>A PDF file of other makers, read object by object (PdfPig reads its tables, repairs them, and deciphers).</summary>
internal sealed class PdfSource : IDisposable
{
    /// <summary>Nodes of the tree of pages; a file of more is not one that people wrote.</summary>
    private const int MostNodes = 200_000;

    /// <summary>References lead so far at most before they come to something.</summary>
    private const int MostSteps = 32;

    private readonly PdfDocument document;
    private readonly IReadOnlyList<Page> pages;

    private PdfSource(PdfDocument document)
    {
        this.document = document;
        pages = PagesOf();
    }

    /// <summary>A page: its dictionary, and what it takes over from those above it (ISO 32000-1 §7.7.3.4).</summary>
    /// <param name="Own">Its own dictionary.</param>
    /// <param name="Reference">Where it stands in the file; null where it stands in its parent.</param>
    /// <param name="Resources">Its resources, or none.</param>
    /// <param name="Seen">What of it is seen: left, bottom, right, top, in points.</param>
    /// <param name="Quarters">By how many quarters it is shown turned to the right.</param>
    internal sealed record Page(
        DictionaryToken Own,
        IndirectReference? Reference,
        DictionaryToken Resources,
        (double Left, double Bottom, double Right, double Top) Seen,
        int Quarters
    );

    public int Count => pages.Count;

    /// <summary>A page by its number, from 1; null where there is none.</summary>
    public Page? this[int number] => number >= 1 && number <= pages.Count ? pages[number - 1] : null;

    /// <summary>Opens a file; null where it cannot be read, or wants another password.</summary>
    public static PdfSource? Open(byte[] file, string password = "") =>
        Tried(() =>
        {
            var options = new ParsingOptions
            {
                UseLenientParsing = true,
                FilterProvider = MeasuredFilters.Instance,
                Password = password,
            };
            return new PdfSource(PdfDocument.Open(file, options));
        });

    /// <summary>What comes of reading; nothing where the file is broken there.</summary>
    public static T? Tried<T>(Func<T?> read)
    {
        try
        {
            return read();
        }
        catch (PrintBudgetException)
        {
            throw;
        }
#pragma warning disable CA1031 // A broken file breaks its reader in any way there is.
        catch (Exception)
#pragma warning restore CA1031
        {
            return default;
        }
    }

    /// <summary>What stands at a reference; null for nothing.</summary>
    public IToken? Find(IndirectReference reference) => document.Structure.GetObject(reference)?.Data;

    /// <summary>A thing, or what it refers to.</summary>
    public IToken? Resolved(IToken? token)
    {
        for (var i = 0; token is IndirectReferenceToken reference && i < MostSteps; i++)
            token = Find(reference.Data);
        return token is ObjectToken found ? found.Data
            : token as IndirectReferenceToken is null ? token
            : null;
    }

    /// <summary>An entry of a dictionary, resolved; null where it has none, or one of another kind.</summary>
    public T? Read<T>(DictionaryToken dictionary, string name)
        where T : class, IToken => dictionary.TryGet(NameToken.Create(name), out var token) ? Resolved(token) as T : null;

    public double? Number(DictionaryToken dictionary, string name) => Read<NumericToken>(dictionary, name)?.Data;

    /// <summary>Four or six numbers of an array; null where they are not there.</summary>
    public double[]? Numbers(DictionaryToken dictionary, string name, int count)
    {
        if (Read<ArrayToken>(dictionary, name) is not { } array || array.Length < count)
            return null;
        var numbers = new double[count];
        for (var i = 0; i < count; i++)
        {
            if (Resolved(array[i]) is not NumericToken number || !double.IsFinite(number.Data))
                return null;
            numbers[i] = number.Data;
        }

        return numbers;
    }

    /// <summary>A stream's bytes without its filters.</summary>
    public byte[] Decoded(StreamToken stream)
    {
        var filters = document.Structure.FilterProvider.GetFilters(stream.StreamDictionary, document.Structure.TokenScanner);
        var bytes = stream.Data;
        for (var i = 0; i < filters.Count; i++)
            bytes = filters[i].Decode(bytes, stream.StreamDictionary, MeasuredFilters.Instance, i);
        return bytes.ToArray();
    }

    /// <summary>Where all of the file begins.</summary>
    public DictionaryToken Catalogue => document.Structure.Catalog.CatalogDictionary;

    /// <summary>The page that a destination leads to, by its number; 0 for none (§12.3.2).</summary>
    /// <param name="destination">An array, or the name of one.</param>
    public int PageOf(IToken? destination)
    {
        var found = Resolved(destination);
        var name = found switch
        {
            NameToken named => named.Data,
            StringToken said => said.Data,
            HexToken said => said.Data,
            _ => null,
        };
        if (name is not null)
            found = (named ??= Named()).GetValueOrDefault(name);
        if (found is DictionaryToken dictionary)
            found = Read<ArrayToken>(dictionary, "D");
        return found is ArrayToken { Length: > 0 } array && array[0] is IndirectReferenceToken page
            ? (numbers ??= Numbered()).GetValueOrDefault(page.Data)
            : 0;
    }

    private Dictionary<string, IToken?>? named;
    private Dictionary<IndirectReference, int>? numbers;

    private Dictionary<IndirectReference, int> Numbered()
    {
        var found = new Dictionary<IndirectReference, int>();
        for (var i = 0; i < pages.Count; i++)
        {
            if (pages[i].Reference is { } reference)
                found.TryAdd(reference, i + 1);
        }

        return found;
    }

    /// <summary>The destinations that have names: of the old dictionary, and of the tree of names (§7.9.6), gone through once and without recursion.</summary>
    private Dictionary<string, IToken?> Named()
    {
        var found = new Dictionary<string, IToken?>();
        foreach (var (name, value) in Read<DictionaryToken>(Catalogue, "Dests")?.Data ?? new Dictionary<string, IToken>())
            found.TryAdd(name, Resolved(value));
        var waiting = new Stack<IToken>();
        if (Read<DictionaryToken>(Catalogue, "Names") is { } names && names.TryGet(NameToken.Create("Dests"), out var root))
            waiting.Push(root);
        var been = new HashSet<IndirectReference>();
        for (var nodes = 0; waiting.TryPop(out var next) && nodes < MostNodes; nodes++)
        {
            if ((next is IndirectReferenceToken at && !been.Add(at.Data)) || Resolved(next) is not DictionaryToken node)
                continue;
            foreach (var kid in Read<ArrayToken>(node, "Kids")?.Data ?? [])
                waiting.Push(kid);
            var pairs = Read<ArrayToken>(node, "Names");
            for (var i = 0; i + 1 < (pairs?.Length ?? 0) && found.Count < MostNodes; i += 2)
            {
                var name = Resolved(pairs![i]) switch
                {
                    StringToken said => said.Data,
                    HexToken said => said.Data,
                    _ => null,
                };
                if (name is not null)
                    found.TryAdd(name, Resolved(pairs[i + 1]));
            }
        }

        return found;
    }

    public void Dispose() => document.Dispose();

    /// <summary>The pages in order. The tree is gone through without recursion, and each of its nodes once.</summary>
    private List<Page> PagesOf()
    {
        var found = new List<Page>();
        if (!Catalogue.TryGet(NameToken.Create("Pages"), out var root))
            return found;
        var waiting = new Stack<(IToken Node, Inherited From)>();
        waiting.Push((root, new Inherited(null, null, null, 0)));
        var been = new HashSet<IndirectReference>();
        for (var nodes = 0; waiting.TryPop(out var next) && nodes < MostNodes; nodes++)
        {
            var reference = (next.Node as IndirectReferenceToken)?.Data;
            if ((reference is { } at && !been.Add(at)) || Resolved(next.Node) is not DictionaryToken node)
                continue;
            var own = next.From.With(this, node);
            if (Read<ArrayToken>(node, "Kids") is { } kids)
            {
                for (var i = kids.Length - 1; i >= 0; i--)
                    waiting.Push((kids[i], own));
            }
            else
                found.Add(new Page(node, reference, own.Resources ?? DictionaryToken.Empty, own.Seen, own.Quarters));
        }

        return found;
    }

    private sealed record Inherited(DictionaryToken? Resources, double[]? Media, double[]? Crop, int Quarters)
    {
        public Inherited With(PdfSource file, DictionaryToken node) =>
            new(
                file.Read<DictionaryToken>(node, "Resources") ?? Resources,
                file.Numbers(node, "MediaBox", 4) ?? Media,
                file.Numbers(node, "CropBox", 4) ?? Crop,
                file.Number(node, "Rotate") is { } degrees && Math.Abs(degrees) < 1e6
                    ? ((int)Math.Round(degrees / 90) % 4 + 4) % 4
                    : Quarters
            );

        /// <summary>What of the medium is shown; of one that is none, a sheet of Letter, which readers take then.</summary>
        public (double, double, double, double) Seen
        {
            get
            {
                var media = Media is null ? (0, 0, 612, 792) : Ordered(Media);
                if (media.Right - media.Left <= 0 || media.Top - media.Bottom <= 0)
                    media = (0, 0, 612, 792);
                if (Crop is null)
                    return media;
                var crop = Ordered(Crop);
                var both = (
                    Left: Math.Max(media.Left, crop.Left),
                    Bottom: Math.Max(media.Bottom, crop.Bottom),
                    Right: Math.Min(media.Right, crop.Right),
                    Top: Math.Min(media.Top, crop.Top)
                );
                return both.Right > both.Left && both.Top > both.Bottom ? both : media;
            }
        }

        private static (double Left, double Bottom, double Right, double Top) Ordered(double[] box) =>
            (Math.Min(box[0], box[2]), Math.Min(box[1], box[3]), Math.Max(box[0], box[2]), Math.Max(box[1], box[3]));
    }
}
