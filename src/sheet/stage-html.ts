/** The page that states come about on. */
export const stageHtml = `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>Stage</title>
<link rel="icon" href="data:,">
<style>body { margin: 16px !important; } * { caret-color: transparent !important; }</style>
</head>
<body></body>
</html>
`;
