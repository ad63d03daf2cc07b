<!doctype html>
<html lang="en">
<head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>Nothing is here · Vine Shelf</title><link rel="icon" href="/mark.svg">@vite(['resources/css/app.css'])</head>
<body class="quiet"><main class="sign-in"><h1>Nothing is here</h1><p>The address is wrong, or what it led to is not yours to see.</p><p><a class="button" href="/projects">Back to the projects</a></p></main></body>
</html>
