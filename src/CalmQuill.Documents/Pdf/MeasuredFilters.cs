using System.IO.Compression;
using UglyToad.PdfPig.Filters;
using UglyToad.PdfPig.Tokens;

namespace CalmQuill.Documents.Pdf;

/// <summary>The usual filters of PDF streams, of which the one that can unfold a little to very much is measured first.</summary>
internal sealed class MeasuredFilters : IFilterProvider
{
    /// <summary>The most bytes that one stream of tables or drawing may unfold to.</summary>
    private const long MostBytes = 256 * 1024 * 1024;

    public static readonly MeasuredFilters Instance = new();

    private readonly IFilterProvider usual = DefaultFilterProvider.Instance;

    private MeasuredFilters() { }

    public IReadOnlyList<IFilter> GetFilters(DictionaryToken dictionary) => Measured(usual.GetFilters(dictionary));

    public IReadOnlyList<IFilter> GetNamedFilters(IReadOnlyList<NameToken> names) => Measured(usual.GetNamedFilters(names));

    public IReadOnlyList<IFilter> GetAllFilters() => Measured(usual.GetAllFilters());

    private static List<IFilter> Measured(IReadOnlyList<IFilter> filters) =>
        [.. filters.Select(filter => filter is FlateFilter ? new Flate(filter) : filter)];

    private sealed class Flate(IFilter usual) : IFilter
    {
        public bool IsSupported => usual.IsSupported;

        public Memory<byte> Decode(Memory<byte> input, DictionaryToken dictionary, IFilterProvider provider, int index)
        {
            Measure(input);
            return usual.Decode(input, dictionary, provider, index);
        }

        /// <exception cref="InsufficientMemoryException">It unfolds to more than may be.</exception>
        private static void Measure(Memory<byte> input)
        {
            using var packed = new MemoryStream(input.ToArray(), writable: false);
            using var unfolding = new ZLibStream(packed, CompressionMode.Decompress);
            var piece = new byte[64 * 1024];
            long length = 0;
            try
            {
                for (int read; (read = unfolding.Read(piece)) > 0; )
                {
                    length += read;
                    if (length > MostBytes)
                        throw new InsufficientMemoryException("A stream of a PDF file unfolds to more than may be.");
                }
            }
            catch (InvalidDataException)
            {
                // One that is broken at its end the usual filter reads as far as it goes.
            }
        }
    }
}
