<script lang="ts">
</script>

<div class="pagehead"><h1>Nothing here</h1></div>
<p style:padding="16px">This address leads nowhere. <a class="go" href="/">Go to the Desk</a></p>
