using CalmQuill.Core.Ink;

namespace CalmQuill.Core.Operations.Codecs;

/// <summary>A batch being read: what its operations share.</summary>
internal ref struct BatchReader
{
    public ByteReader Head;
    public SampleCodec.Readers Columns;

    /// <summary>The stamp of the operation being read.</summary>
    public Hlc Time;

    /// <summary>What the stroke before was written with and on.</summary>
    public (Pen Pen, Guid Layer) Before;
}
