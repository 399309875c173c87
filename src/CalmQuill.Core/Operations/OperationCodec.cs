using CalmQuill.Core.Ink;
using CalmQuill.Core.Items;
using CalmQuill.Core.Layers;
using CalmQuill.Core.Library;
using CalmQuill.Core.Shapes;
using CalmQuill.Core.Spots;

namespace CalmQuill.Core.Operations;

/// <summary>The one binary form of operations, for the network, the device's own store and the database: a batch of them.</summary>
/// <remarks>
/// A version byte, the replicas (8 bytes each), the authors (16 bytes each), the count, the lengths of five columns of samples, the columns, then
/// every operation with its kind, indices into those tables, counter and stamp as differences to the one before, and its payload. See docs/operations.md.
/// </remarks>
public static class OperationCodec
{
    private const byte Version = 1;
    public const int MostOperations = 1_000_000;
    public const int MostItems = 100_000;

    public static byte[] Encode(params IReadOnlyList<Operation> operations)
    {
        var writer = new ByteWriter(64 + operations.Count * 64);
        var replicas = new Dictionary<ulong, int>();
        var authors = new Dictionary<Guid, int>();
        foreach (var operation in operations)
        {
            replicas.TryAdd(operation.Id.Replica, replicas.Count);
            authors.TryAdd(operation.Author, authors.Count);
        }

        writer.Byte(Version);
        writer.Varint((ulong)replicas.Count);
        foreach (var replica in replicas.Keys)
            writer.Fixed64(replica);
        writer.Varint((ulong)authors.Count);
        foreach (var author in authors.Keys)
            writer.Guid(author);
        writer.Varint((ulong)operations.Count);
        var head = new ByteWriter(operations.Count * 24 + 16);
        var columns = new SampleCodec.Writers();
        var counters = new ulong[replicas.Count];
        var time = default(Hlc);
        var before = default(Tool);
        foreach (var operation in operations)
        {
            var replica = replicas[operation.Id.Replica];
            head.Byte((byte)operation.Change.Kind);
            head.Varint((ulong)replica);
            head.Signed(unchecked((long)(operation.Id.Counter - counters[replica] - 1)));
            head.Signed(operation.Time.UnixMilliseconds - time.UnixMilliseconds);
            head.Varint((ulong)operation.Time.Logical);
            head.Varint((ulong)authors[operation.Author]);
            if (operation.Change is Change.StrokeAdded stroke)
                WriteStroke(head, columns, stroke, operation.Time, ref before);
            else
                WriteChange(head, operation.Change);
            counters[replica] = operation.Id.Counter;
            time = operation.Time;
        }

        foreach (var column in columns.All)
            writer.Varint((ulong)column.Length);
        foreach (var column in columns.All)
            writer.Bytes(column.Written);
        writer.Bytes(head.Written);
        return writer.ToArray();
    }

    /// <exception cref="OperationFormatException">The bytes are not a batch, or hold more than is allowed.</exception>
    public static List<Operation> Decode(ReadOnlySpan<byte> bytes)
    {
        var reader = new ByteReader(bytes);
        if (reader.Byte() != Version)
            throw new OperationFormatException("The data is of a version that is not known here.");
        var replicas = new ulong[reader.Count(MostOperations, 8, "replicas")];
        for (var i = 0; i < replicas.Length; i++)
            replicas[i] = reader.Fixed64();
        var authors = new Guid[reader.Count(MostOperations, 16, "authors")];
        for (var i = 0; i < authors.Length; i++)
            authors[i] = reader.Guid();
        var count = reader.Count(MostOperations, 6, "operations");
        Span<int> lengths = stackalloc int[5];
        for (var i = 0; i < lengths.Length; i++)
            lengths[i] = reader.Count(int.MaxValue, 1, "bytes of samples");
        var columns = new SampleCodec.Readers
        {
            X = reader.Part(lengths[0]),
            Y = reader.Part(lengths[1]),
            Pressure = reader.Part(lengths[2]),
            Time = reader.Part(lengths[3]),
            Tilt = reader.Part(lengths[4]),
        };
        var operations = new List<Operation>(count);
        var counters = new ulong[replicas.Length];
        var milliseconds = 0L;
        var before = default(Tool);
        for (var i = 0; i < count; i++)
        {
            var kind = (ChangeKind)reader.Byte();
            var replica = Index(reader.Varint(), replicas.Length);
            counters[replica] = unchecked(counters[replica] + (ulong)reader.Signed() + 1);
            milliseconds = unchecked(milliseconds + reader.Signed());
            var logical = reader.Varint();
            if (milliseconds is < 0 or >= 1L << 48 || logical > ushort.MaxValue)
                throw new OperationFormatException("The data holds a time out of range.");
            var time = Hlc.At(milliseconds, (int)logical);
            var author = authors[Index(reader.Varint(), authors.Length)];
            operations.Add(
                new Operation(
                    new OpId(replicas[replica], counters[replica]),
                    time,
                    author,
                    kind == ChangeKind.StrokeAdded ? ReadStroke(ref reader, ref columns, time, ref before) : ReadChange(ref reader, kind)
                )
            );
        }

        if (!reader.AtEnd || !columns.AtEnd)
            throw new OperationFormatException("The data goes on after its end.");
        return operations;
    }

    private static int Index(ulong index, int length) =>
        index < (ulong)length
            ? (int)index
            : throw new OperationFormatException("The data names a replica or author that it does not list.");

    /// <summary>What a stroke is written with and on.</summary>
    private readonly record struct Tool(Pen Pen, Guid Layer);

    private const byte NewPen = 1,
        FancyPen = 2,
        NewLayer = 4;

    /// <summary>Stands in a shape's kind where pressures follow its points.</summary>
    private const byte WithPressure = 0x80;

    /// <summary>A pen and a layer are written where they differ from those before.</summary>
    private static void WriteStroke(ByteWriter head, SampleCodec.Writers columns, Change.StrokeAdded stroke, Hlc time, ref Tool before)
    {
        var penFlags =
            stroke.Pen == before.Pen ? 0
            : stroke.Pen.IsPlain ? NewPen
            : NewPen | FancyPen;
        head.Byte((byte)(penFlags | (stroke.Layer == before.Layer ? 0 : NewLayer)));
        if (penFlags != 0)
            WritePen(head, stroke.Pen);
        if (stroke.Layer != before.Layer)
            head.Guid(stroke.Layer);
        before = new Tool(stroke.Pen, stroke.Layer);
        // Most strokes are stamped when the pen is lifted, so this is next to nothing.
        head.Signed(stroke.StartedAt + stroke.Samples.Time[^1] - time.UnixMilliseconds);
        SampleCodec.Write(head, columns, stroke.Samples);
    }

    private static Change.StrokeAdded ReadStroke(ref ByteReader reader, ref SampleCodec.Readers columns, Hlc time, ref Tool before)
    {
        var news = reader.Byte();
        if (news > (NewPen | FancyPen | NewLayer) || (news & (NewPen | FancyPen)) == FancyPen)
            throw new OperationFormatException("A pen is not well formed.");
        if ((news & NewPen) != 0)
            before = before with { Pen = ReadPen(ref reader, (news & FancyPen) != 0) };
        if ((news & NewLayer) != 0)
            before = before with { Layer = reader.Guid() };
        var ended = unchecked(time.UnixMilliseconds + reader.Signed());
        var samples = SampleCodec.Read(ref reader, ref columns);
        return new Change.StrokeAdded(before.Pen, unchecked(ended - samples.Time[^1]), samples) { Layer = before.Layer };
    }

    private static void WritePen(ByteWriter writer, Pen pen, bool fancy)
    {
        writer.Byte((byte)pen.Kind);
        writer.Varint((ulong)pen.Width);
        writer.Fixed32(pen.Colour);
        if (!fancy)
            return;
        writer.Byte((byte)pen.Line);
        writer.Byte((byte)pen.Tip);
        writer.Signed(pen.Angle);
        writer.Signed(pen.Response);
    }

    private static void WritePen(ByteWriter writer, Pen pen) => WritePen(writer, pen, !pen.IsPlain);

    private static Pen ReadPen(ref ByteReader reader, bool fancy)
    {
        var kind = (PenKind)reader.Byte();
        var width = reader.Varint();
        if (width > int.MaxValue)
            throw new OperationFormatException("A pen is not well formed.");
        var pen = new Pen(kind, (int)width, reader.Fixed32());
        return fancy
            ? pen with
            {
                Line = (LineStyle)reader.Byte(),
                Tip = (NibTip)reader.Byte(),
                Angle = reader.Int32(),
                Response = reader.Int32(),
            }
            : pen;
    }

    private static void WriteChange(ByteWriter writer, Change change)
    {
        switch (change)
        {
            case Change.NodePlaced placed:
                writer.Guid(placed.Node);
                writer.Byte((byte)placed.NodeKind);
                writer.Guid(placed.Parent);
                writer.Text(placed.Order);
                break;
            case Change.PropertySet set:
                writer.Guid(set.Target);
                writer.Byte((byte)set.Property);
                writer.Text(set.Value);
                break;
            case Change.PageAdded added:
                writer.Guid(added.Page);
                writer.Text(added.Order);
                writer.Text(added.Paper);
                break;
            case Change.OrdersSet set:
                writer.Varint((ulong)set.Orders.Count);
                foreach (var (node, order) in set.Orders)
                {
                    writer.Guid(node);
                    writer.Text(order);
                }

                break;
            case Change.ItemsRemoved removed:
                WriteIds(writer, removed.Items);
                break;
            case Change.ItemsShifted shifted:
                WriteIds(writer, shifted.Items);
                writer.Signed(shifted.Dx);
                writer.Signed(shifted.Dy);
                break;
            case Change.GapsAdded gaps:
                WriteIds(writer, gaps.Strokes.Select(stroke => stroke.Stroke).ToList());
                foreach (var stroke in gaps.Strokes)
                    WriteIntervals(writer, stroke.Intervals);
                break;
            case Change.EffectSet effect:
                writer.Fixed64(effect.Target.Replica);
                writer.Varint(effect.Target.Counter);
                writer.Byte(effect.Active ? (byte)1 : (byte)0);
                break;
            case Change.TagSet tag:
                writer.Guid(tag.Target);
                writer.Guid(tag.Tag);
                writer.Byte(tag.On ? (byte)1 : (byte)0);
                break;
            case Change.Visited visited:
                writer.Guid(visited.Space);
                writer.Guid(visited.Target);
                break;
            case Change.SpotAdded spot:
                writer.Guid(spot.Spot);
                writer.Byte((byte)spot.SpotKind);
                writer.Signed(spot.Area.Left);
                writer.Signed(spot.Area.Top);
                writer.Signed(spot.Area.Right - (long)spot.Area.Left);
                writer.Signed(spot.Area.Bottom - (long)spot.Area.Top);
                WriteIds(writer, spot.Items);
                WriteValues(writer, spot.Values);
                break;
            case Change.SpotSet spot:
                writer.Guid(spot.Spot);
                WriteValues(writer, spot.Values);
                break;
            case Change.ItemsTransformed transformed:
                WriteIds(writer, transformed.Items);
                writer.Varint((ulong)transformed.Spots.Count);
                foreach (var spot in transformed.Spots)
                    writer.Guid(spot);
                var (a, b, c, d, e, f) = transformed.Transform;
                foreach (var number in new[] { a, b, c, d, e, f })
                    writer.Signed(number);
                break;
            case Change.ShapeAdded shape:
                writer.Byte((byte)((int)shape.Shape.Kind | (shape.Shape.Pressure.Count > 0 ? WithPressure : 0)));
                writer.Varint((ulong)shape.Shape.Detail);
                writer.Varint((ulong)shape.Shape.Points.Count);
                WriteCorners(writer, shape.Shape.Points);
                if (shape.Shape.Pressure.Count > 0)
                {
                    writer.Varint((ulong)shape.Shape.Pressure.Count);
                    foreach (var pressure in shape.Shape.Pressure)
                        writer.Varint((ulong)pressure);
                }

                WritePen(writer, shape.Pen, true);
                writer.Fixed32(shape.Fill);
                writer.Guid(shape.Layer);
                WriteIds(writer, shape.Replaces);
                break;
            case Change.ItemsSet set:
                WriteIds(writer, set.Items);
                writer.Varint((ulong)set.Values.Count);
                foreach (var (field, value) in set.Values)
                    WriteValue(writer, (byte)field, value);
                break;
            case Change.LayerSet set:
                writer.Guid(set.Layer);
                writer.Varint((ulong)set.Values.Count);
                foreach (var (field, value) in set.Values)
                    WriteValue(writer, (byte)field, value);
                break;
            case Change.StepsJoined joined:
                WriteIds(writer, joined.Steps);
                break;
            default:
                throw new InvalidOperationException($"No codec for {change.Kind}.");
        }
    }

    private static Change ReadChange(ref ByteReader reader, ChangeKind kind)
    {
        switch (kind)
        {
            case ChangeKind.NodePlaced:
                return new Change.NodePlaced(reader.Guid(), (NodeKind)reader.Byte(), reader.Guid(), reader.Text(TextRule.LeastBytesRead));
            case ChangeKind.PropertySet:
                var (target, property) = (reader.Guid(), (Property)reader.Byte());
                return new Change.PropertySet(target, property, reader.Text(Properties.MostBytes(property)));
            case ChangeKind.PageAdded:
                return new Change.PageAdded(
                    reader.Guid(),
                    reader.Text(TextRule.LeastBytesRead),
                    reader.Text(Properties.MostBytes(Property.Paper))
                );
            case ChangeKind.OrdersSet:
                var orders = new NodeOrder[reader.Count(MostItems, 17, "things")];
                for (var i = 0; i < orders.Length; i++)
                    orders[i] = new NodeOrder(reader.Guid(), reader.Text(TextRule.LeastBytesRead));
                return new Change.OrdersSet(orders);
            case ChangeKind.ItemsRemoved:
                return new Change.ItemsRemoved(ReadIds(ref reader));
            case ChangeKind.ItemsShifted:
                return new Change.ItemsShifted(ReadIds(ref reader), reader.Int32(), reader.Int32());
            case ChangeKind.GapsAdded:
                var gaps = ReadIds(ref reader).Select(id => new StrokeGaps(id, [])).ToArray();
                for (var i = 0; i < gaps.Length; i++)
                    gaps[i] = gaps[i] with { Intervals = ReadIntervals(ref reader) };
                return new Change.GapsAdded(gaps);
            case ChangeKind.EffectSet:
                return new Change.EffectSet(new OpId(reader.Fixed64(), reader.Varint()), ReadSwitch(ref reader));
            case ChangeKind.TagSet:
                return new Change.TagSet(reader.Guid(), reader.Guid(), ReadSwitch(ref reader));
            case ChangeKind.Visited:
                return new Change.Visited(reader.Guid(), reader.Guid());
            case ChangeKind.SpotAdded:
                return new Change.SpotAdded(
                    reader.Guid(),
                    (SpotKind)reader.Byte(),
                    ReadBox(ref reader),
                    ReadIds(ref reader),
                    ReadValues(ref reader)
                );
            case ChangeKind.SpotSet:
                return new Change.SpotSet(reader.Guid(), ReadValues(ref reader));
            case ChangeKind.ItemsTransformed:
                var items = ReadIds(ref reader);
                var spots = new Guid[reader.Count(MostItems, 16, "signs")];
                for (var i = 0; i < spots.Length; i++)
                    spots[i] = reader.Guid();
                return new Change.ItemsTransformed(
                    items,
                    spots,
                    new Transform(reader.Int32(), reader.Int32(), reader.Int32(), reader.Int32(), reader.Int32(), reader.Int32())
                );
            case ChangeKind.ShapeAdded:
                var shapeKind = reader.Byte();
                var detail = (int)Math.Min(reader.Varint(), int.MaxValue);
                var shape = new Shape((ShapeKind)(shapeKind & ~WithPressure), ReadCorners(ref reader), detail)
                {
                    Pressure = (shapeKind & WithPressure) != 0 ? ReadPressures(ref reader) : [],
                };
                var pen = ReadPen(ref reader, true);
                var fill = reader.Fixed32();
                var layer = reader.Guid();
                return new Change.ShapeAdded(shape, pen, fill, ReadIds(ref reader)) { Layer = layer };
            case ChangeKind.ItemsSet:
                return new Change.ItemsSet(
                    ReadIds(ref reader),
                    ReadFields(ref reader, ItemRules.Fields, field => (ItemField)field, (field, value) => new ItemValue(field, value))
                );
            case ChangeKind.LayerSet:
                return new Change.LayerSet(
                    reader.Guid(),
                    ReadFields(ref reader, LayerRules.Fields, field => (LayerField)field, (field, value) => new LayerValue(field, value))
                );
            case ChangeKind.StepsJoined:
                return new Change.StepsJoined(ReadIds(ref reader));
            default:
                throw new OperationFormatException($"The data holds a change of kind {(int)kind}, which is not known here.");
        }
    }

    private static Box ReadBox(ref ByteReader reader)
    {
        long left = reader.Int32(),
            top = reader.Int32(),
            right = left + reader.Int32(),
            bottom = top + reader.Int32();
        if (right is < int.MinValue or > int.MaxValue || bottom is < int.MinValue or > int.MaxValue)
            throw new OperationFormatException("An area is out of range.");
        return new Box((int)left, (int)top, (int)right, (int)bottom);
    }

    private static void WriteValues(ByteWriter writer, IReadOnlyList<SpotValue> values)
    {
        writer.Varint((ulong)values.Count);
        foreach (var value in values)
            WriteValue(writer, (byte)value.Field, value.Value);
    }

    private static void WriteValue(ByteWriter writer, byte field, string value)
    {
        writer.Byte(field);
        writer.Text(value);
    }

    /// <summary>Values, each as long as its field's rule lets it be; a field that is not known here may be of a later version.</summary>
    private static T[] ReadFields<T, TField>(
        ref ByteReader reader,
        IReadOnlyDictionary<TField, TextRule> rules,
        Func<byte, TField> fieldOf,
        Func<TField, string, T> of
    )
    {
        var values = new T[reader.Count(byte.MaxValue, 2, "values")];
        for (var i = 0; i < values.Length; i++)
        {
            var field = fieldOf(reader.Byte());
            var most = rules.TryGetValue(field, out var rule) ? rule.MostBytesRead : TextRule.MostBytesUnknown;
            values[i] = of(field, reader.Text(most));
        }

        return values;
    }

    /// <summary>Corners as differences to the one before.</summary>
    private static void WriteCorners(ByteWriter writer, IReadOnlyList<Corner> corners)
    {
        var before = default(Corner);
        foreach (var corner in corners)
        {
            writer.Signed(corner.X - (long)before.X);
            writer.Signed(corner.Y - (long)before.Y);
            before = corner;
        }
    }

    private static Corner[] ReadCorners(ref ByteReader reader)
    {
        var corners = new Corner[reader.Count(Shape.MostPoints, 2, "corners")];
        long x = 0,
            y = 0;
        for (var i = 0; i < corners.Length; i++)
        {
            (x, y) = (unchecked(x + reader.Signed()), unchecked(y + reader.Signed()));
            if (x is < int.MinValue or > int.MaxValue || y is < int.MinValue or > int.MaxValue)
                throw new OperationFormatException("A corner is out of range.");
            corners[i] = new Corner((int)x, (int)y);
        }

        return corners;
    }

    private static int[] ReadPressures(ref ByteReader reader)
    {
        var pressures = new int[reader.Count(PressureAlong.Most, 1, "pressures")];
        if (pressures.Length == 0)
            throw new OperationFormatException("A shape that keeps its pressure has none.");
        for (var i = 0; i < pressures.Length; i++)
            pressures[i] = (int)Math.Min(reader.Varint(), int.MaxValue);
        return pressures;
    }

    private static SpotValue[] ReadValues(ref ByteReader reader) =>
        ReadFields(ref reader, SpotRules.Fields, field => (SpotField)field, (field, value) => new SpotValue(field, value));

    private static bool ReadSwitch(ref ByteReader reader) =>
        reader.Byte() is var value and < 2
            ? value == 1
            : throw new OperationFormatException("The data holds a switch that is neither on nor off.");

    private static void WriteIds(ByteWriter writer, IReadOnlyList<OpId> ids)
    {
        writer.Varint((ulong)ids.Count);
        var before = new OpId(0, 0);
        foreach (var id in ids)
        {
            var same = id.Replica == before.Replica;
            writer.Signed(unchecked((long)((id.Counter - (same ? before.Counter : 0)) << 1) | (same ? 0L : 1L)));
            if (!same)
                writer.Fixed64(id.Replica);
            before = id;
        }
    }

    private static OpId[] ReadIds(ref ByteReader reader)
    {
        var ids = new OpId[reader.Count(MostItems, 1, "items")];
        var before = new OpId(0, 0);
        for (var i = 0; i < ids.Length; i++)
        {
            var head = reader.Signed();
            var same = (head & 1) == 0;
            var counter = unchecked((ulong)(head >> 1));
            before = same ? new OpId(before.Replica, unchecked(before.Counter + counter)) : new OpId(reader.Fixed64(), counter);
            ids[i] = before;
        }

        return ids;
    }

    private static void WriteIntervals(ByteWriter writer, IReadOnlyList<Interval> intervals)
    {
        writer.Varint((ulong)intervals.Count);
        var before = 0;
        foreach (var interval in intervals)
        {
            writer.Signed(interval.Start - (long)before);
            writer.Signed(interval.End - (long)interval.Start);
            before = interval.End;
        }
    }

    private static Interval[] ReadIntervals(ref ByteReader reader)
    {
        var intervals = new Interval[reader.Count(MostItems, 2, "gaps")];
        long before = 0;
        for (var i = 0; i < intervals.Length; i++)
        {
            var start = unchecked(before + reader.Signed());
            var end = unchecked(start + reader.Signed());
            if (start < int.MinValue || start > int.MaxValue || end < int.MinValue || end > int.MaxValue)
                throw new OperationFormatException("A gap is out of range.");
            intervals[i] = new Interval((int)start, (int)end);
            before = end;
        }

        return intervals;
    }
}
