/** What a script is told beside what it does. */
interface Facts {
  /** The formats that it reads. */
  readonly formats: readonly string[];
  /** The process for whose life it watches. */
  readonly process: number;
}

/**
 * What the scripts share. They say and hear lines of fields parted by tabs, in base64 but for names of formats: the
 * application, the title of its window, and each format as `name=bytes`. The clipboard is that of Windows Forms;
 * its sequence number, and the window in front, are the Windows API's.
 */
const SHARED = `
$ErrorActionPreference = 'Stop'
Add-Type -AssemblyName System.Windows.Forms
Add-Type -AssemblyName System.Drawing
Add-Type -Namespace Drawer -Name Api -MemberDefinition @'
[DllImport("user32.dll")] public static extern uint GetClipboardSequenceNumber();
[DllImport("user32.dll")] public static extern System.IntPtr GetForegroundWindow();
[DllImport("user32.dll", CharSet = CharSet.Unicode)] public static extern int GetWindowText(System.IntPtr window, System.Text.StringBuilder text, int count);
[DllImport("user32.dll")] public static extern uint GetWindowThreadProcessId(System.IntPtr window, out uint process);
'@

function Read-Bytes($data, $format) {
  if (-not $data.GetDataPresent($format, $false)) { return $null }
  $value = $data.GetData($format, $false)
  if ($value -is [IO.Stream]) {
    $bytes = New-Object IO.MemoryStream
    $value.CopyTo($bytes)
    return ,$bytes.ToArray()
  }
  if ($value -is [string]) { return ,[Text.Encoding]::UTF8.GetBytes($value) }
  return ,[byte[]]@()
}

function Say-Standing {
  $found = @()
  $data = [Windows.Forms.Clipboard]::GetDataObject()
  if ($data) {
    foreach ($format in $formats) {
      $bytes = Read-Bytes $data $format
      if ($null -ne $bytes) { $found += $format + '=' + [Convert]::ToBase64String($bytes) }
    }
  }
  $window = [Drawer.Api]::GetForegroundWindow()
  $title = New-Object Text.StringBuilder 512
  [void][Drawer.Api]::GetWindowText($window, $title, 512)
  [uint32]$id = 0
  [void][Drawer.Api]::GetWindowThreadProcessId($window, [ref]$id)
  $process = Get-Process -Id $id -ErrorAction SilentlyContinue
  $app = if ($process) { if ($process.Description) { $process.Description } else { $process.ProcessName } } else { '' }
  $where = @($app, $title.ToString()) | ForEach-Object { [Convert]::ToBase64String([Text.Encoding]::UTF8.GetBytes($_)) }
  [Console]::Out.WriteLine(((@($where) + $found) -join "\`t"))
  [Console]::Out.Flush()
}
`;

/**
 * What the scripts share that reach windows: they are told and say lines of JSON. What is pressed is asked of the Windows API, which
 * tells each key and button that is down.
 */
const WINDOWS = `
Add-Type -Namespace Drawer -Name Windows -MemberDefinition @'
[DllImport("user32.dll")] public static extern bool IsWindow(System.IntPtr window);
[DllImport("user32.dll")] public static extern bool IsIconic(System.IntPtr window);
[DllImport("user32.dll")] public static extern bool ShowWindow(System.IntPtr window, int how);
[DllImport("user32.dll")] public static extern bool SetForegroundWindow(System.IntPtr window);
[DllImport("user32.dll")] static extern short GetAsyncKeyState(int key);
public static int Pressed() {
  for (int key = 1; key < 255; key++) if ((GetAsyncKeyState(key) & 0x8000) != 0) return key;
  return 0;
}
'@

function Get-Window($window) {
  if ($window -eq [IntPtr]::Zero -or -not [Drawer.Windows]::IsWindow($window)) { return $null }
  $title = New-Object Text.StringBuilder 512
  [void][Drawer.Api]::GetWindowText($window, $title, 512)
  [uint32]$id = 0
  [void][Drawer.Api]::GetWindowThreadProcessId($window, [ref]$id)
  $process = Get-Process -Id $id -ErrorAction SilentlyContinue
  $name = if ($process) { $process.ProcessName } else { '' }
  $app = if ($process -and $process.Description) { $process.Description } else { $name }
  return @{ id = $window.ToInt64(); app = $app; title = $title.ToString(); isTerminal = $name -match '^(WindowsTerminal|cmd|powershell|pwsh|conhost|mintty|alacritty|wezterm-gui)$' }
}

function Say($value) {
  [Console]::Out.WriteLine((ConvertTo-Json -Compress -Depth 4 $value))
  [Console]::Out.Flush()
}
`;

/** What the scripts do. */
const ACTS = {
  /** Says what stands on the clipboard, in a line. */
  read: "Say-Standing",
  /** Says so at each change, for as long as the process that started it runs. */
  watch: `
$count = [Drawer.Api]::GetClipboardSequenceNumber()
while (Get-Process -Id $owner -ErrorAction SilentlyContinue) {
  $now = [Drawer.Api]::GetClipboardSequenceNumber()
  if ($now -ne $count) {
    Start-Sleep -Milliseconds 30
    $count = [Drawer.Api]::GetClipboardSequenceNumber()
    Say-Standing
  }
  Start-Sleep -Milliseconds 100
}`,
  /** Puts what standard input says there, and leaves it there when it ends. */
  offer: `
$given = [Console]::In.ReadToEnd()
$data = New-Object Windows.Forms.DataObject
$fields = @($given.Split("\`t") | Where-Object { $_ -ne '' })
foreach ($field in $fields) {
  $name, $base64 = $field.Split('=', 2)
  $bytes = [Convert]::FromBase64String($base64)
  if ($name -eq 'UnicodeText') {
    $data.SetData($name, $false, [Text.Encoding]::UTF8.GetString($bytes))
  } else {
    $data.SetData($name, $false, (New-Object IO.MemoryStream (,$bytes)))
    if ($name -eq 'PNG') { $data.SetImage([Drawing.Image]::FromStream((New-Object IO.MemoryStream (,$bytes)))) }
  }
}
if ($fields.Count -eq 0) { [Windows.Forms.Clipboard]::Clear() }
else { [Windows.Forms.Clipboard]::SetDataObject($data, $true, 10, 100) }`,
  /** Says all that stands there, in whatever form can be read as bytes, and whether that is all. */
  everything: `
$data = [Windows.Forms.Clipboard]::GetDataObject()
$found = @()
$left = 0
if ($data) {
  foreach ($format in $data.GetFormats($false)) {
    $bytes = Read-Bytes $data $format
    if ($null -eq $bytes -or $bytes.Length -eq 0) { $left++ }
    else { $found += $format + '=' + [Convert]::ToBase64String($bytes) }
  }
}
[Console]::Out.WriteLine((@("$left") + $found) -join "\`t")`,
  /** Answers each line that it is asked. */
  windows: `${WINDOWS}
while ($null -ne ($line = [Console]::In.ReadLine())) {
  try {
    $asked = ConvertFrom-Json $line
    $window = if ($asked.id) { [IntPtr][long]$asked.id } else { [Drawer.Api]::GetForegroundWindow() }
    switch ($asked.act) {
      'raise' {
        if ([Drawer.Windows]::IsIconic($window)) { [void][Drawer.Windows]::ShowWindow($window, 9) }
        # Who has pressed a key last may bring a window to the front (SetForegroundWindow, Remarks).
        [Windows.Forms.SendKeys]::SendWait('%')
        Say @{ answer = [Drawer.Windows]::SetForegroundWindow($window) }
      }
      'count' { Say @{ answer = [Drawer.Api]::GetClipboardSequenceNumber() } }
      'press' { [Windows.Forms.SendKeys]::SendWait($asked.key); Say @{ answer = $true } }
      default { Say @{ answer = (Get-Window $window) } }
    }
  } catch { Say @{ error = $_.Exception.Message } }
}`,
  /** Tells of the window in front and of what is pressed, for as long as the process that started it runs. */
  follow: `${WINDOWS}
$last = ''
$down = 0
for ($turn = 0; $turn % 40 -ne 0 -or (Get-Process -Id $owner -ErrorAction SilentlyContinue); $turn++) {
  $front = Get-Window ([Drawer.Api]::GetForegroundWindow())
  $said = ConvertTo-Json -Compress @{ front = $front }
  if ($said -ne $last) { Say @{ front = $front } }
  $last = $said
  $pressed = [Drawer.Windows]::Pressed()
  # 1 to 6 are the buttons of the mouse (Virtual-Key Codes).
  if ($pressed -ne 0 -and $pressed -ne $down) { Say @{ input = $(if ($pressed -le 6) { 'button' } else { 'key' }) } }
  $down = $pressed
  Start-Sleep -Milliseconds 50
}`,
  /** Shows a sentence beside the clock. */
  notify: `
$given = [Console]::In.ReadToEnd()
$icon = New-Object Windows.Forms.NotifyIcon
$icon.Icon = [Drawing.SystemIcons]::Information
$icon.Visible = $true
$icon.ShowBalloonTip(5000, 'Drawer', [Text.Encoding]::UTF8.GetString([Convert]::FromBase64String($given)), 'None')
Start-Sleep -Seconds 5
$icon.Dispose()`,
};

/** The script, in PowerShell 5.1, that does something with the clipboard of Windows. */
export function scriptFor(act: keyof typeof ACTS, { formats, process }: Facts): string {
  const names = formats.map((format) => `'${format}'`).join(", ");
  return `$formats = @(${names})\n$owner = ${process}\n${SHARED}\n${ACTS[act]}\n`;
}
