using UnityEngine;

namespace Saltmarsh.Orrery
{
    /// <summary>A planet that is pushed onto its way round the sun.</summary>
    public sealed class Planet : MonoBehaviour
    {
        [SerializeField]
        private float distance = 1f;

        [SerializeField]
        private float speed = 12f;

        private float angle;

        public bool IsOnItsWay { get; private set; }

        public void Push(float strength)
        {
            speed += strength;
            IsOnItsWay = Mathf.Abs(speed * speed * distance - 144f) < 6f;
        }

        private void Update()
        {
            angle += speed * Time.deltaTime;
            var radians = angle * Mathf.Deg2Rad;
            transform.localPosition = new Vector3(Mathf.Cos(radians), 0f, Mathf.Sin(radians)) * distance;
        }
    }
}
