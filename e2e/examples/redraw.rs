//! Height key to redrawn figures, in headless Chromium: prints milliseconds, asserts nothing.
//! `TEST_DATABASE_URL=… cargo run -p bold-stance-e2e --example redraw`
#![allow(clippy::unwrap_used, clippy::expect_used, clippy::panic)]

#[path = "../tests/jobs/harness/mod.rs"]
mod harness;

#[tokio::main]
async fn main() {
    let a = harness::App::start(1280, 800).await;
    a.open("/").await;
    let jobs = a.fetch("/api/v1/jobs").await;
    a.open(&format!("/job/{}/plan", jobs[0]["job"]["id"].as_str().unwrap())).await;
    a.until("headline", |t| !t.is_empty()).await;
    let script = "const done=arguments[arguments.length-1];(async()=>{
        const fig=()=>document.querySelector('[data-testid=plan-figures]').textContent;
        const out=[];
        for(let i=0;i<60;i++){const was=fig();const t=performance.now();
          window.dispatchEvent(new KeyboardEvent('keydown',{key:i%2?'{':'}',bubbles:true}));
          const height=JSON.parse(was).height+(i%2?-1:1);
          const ready=()=>{const f=JSON.parse(fig());return f.height===height&&JSON.stringify(f.left)!==JSON.stringify(JSON.parse(was).left)};
          while(!ready())await new Promise(r=>setTimeout(r,1));
          await new Promise(r=>requestAnimationFrame(()=>setTimeout(r,0)));
          out.push(performance.now()-t);await new Promise(r=>setTimeout(r,60));}
        out.sort((a,b)=>a-b);done({median:out[30],p95:out[57],worst:out[59]});})()";
    let r = a.c.execute_async(script, vec![]).await.unwrap();
    println!("slider to redraw, ms: {r}");
    a.finish().await;
}
