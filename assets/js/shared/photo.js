// A picture file no larger than it is needed, so that it is quickly sent.

// @param {File} file
// @param {Number} side pixels that its longer side may have
// @param {String} type of the picture that is made
// @returns {Promise<{blob: Blob, scale: Number}>} the picture, and by how much it was made smaller; refused where this browser
//   can't read it
export async function smaller(file, side, type) {
  const image = new Image();
  image.src = URL.createObjectURL(file);
  await image.decode().finally(() => URL.revokeObjectURL(image.src));
  const scale = Math.min(1, side / Math.max(image.naturalWidth, image.naturalHeight));
  const canvas = Object.assign(document.createElement("canvas"), {
    width: Math.round(image.naturalWidth * scale),
    height: Math.round(image.naturalHeight * scale),
  });
  canvas.getContext("2d").drawImage(image, 0, 0, canvas.width, canvas.height);
  const blob = await new Promise((done) => {
    canvas.toBlob(done, type, 0.85);
  });
  return { blob: blob ?? file, scale };
}
