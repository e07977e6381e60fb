import sharp from 'sharp';
const [out, cols, w, h, ...files] = process.argv.slice(2);
const C=+cols, W=+w, H=+h;
const rows=Math.ceil(files.length/C);
const tiles=await Promise.all(files.map(async(f,i)=>({input: await sharp(f).resize(W,H,{fit:'inside'}).extend({bottom:2,right:2,background:'#c33'}).png().toBuffer(), left:(i%C)*(W+4), top:Math.floor(i/C)*(H+4)})));
await sharp({create:{width:C*(W+4),height:rows*(H+4),channels:3,background:'#888'}}).composite(tiles).png().toFile(out);
