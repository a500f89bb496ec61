using Dibujo.Endurance;

return args switch
{
    ["load", .. var folder] => await Load.RunAsync(folder.FirstOrDefault()),
    ["lists", .. var folder] => await Lists.RunAsync(folder.FirstOrDefault()),
    ["import", ..] => await ImportBeside.RunAsync(),
    ["kill", var times] => await KillNine.RunAsync(int.Parse(times, System.Globalization.CultureInfo.InvariantCulture)),
    ["contend", ..] => await Contention.RunAsync(),
    ["freeze", ..] => await Freeze.RunAsync(),
    ["stall", ..] => await Stall.RunAsync(),
    _ => Usage(),
};

static int Usage()
{
    Console.Error.WriteLine("Usage: load [FOLDER] | lists [FOLDER] | import | kill TIMES | contend | freeze | stall. Build with scripts/build first; figures are in docs/reliability.md.");
    return 2;
}
